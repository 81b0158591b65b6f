/**
 * The builders of schemas that we use, under the name that the package gives them: its own `Type` carries
 * all of them into the browser.
 */
import { Array, Boolean, Integer, Literal, Null, Number, Object, Optional, Record, String, Tuple, Union, Unknown, Unsafe } from '@sinclair/typebox'; // prettier-ignore

// prettier-ignore
export const Type = { Array, Boolean, Integer, Literal, Null, Number, Object, Optional, Record, String, Tuple, Union, Unknown, Unsafe };
