/// <reference types="astro/client" />

declare namespace App {
  interface Locals {
    /** Who asks; set for every page and endpoint (middleware.ts). */
    visitor: import('./formats/visitor.js').Visitor;
    /** From where: the other end's address, whether others than this machine reach the server, whether by HTTPS. */
    from?: import('./server/access/from.js').From;
  }
}
