/** Says who one is, and goes on where one wanted to. */
import { useId, useState, type SyntheticEvent } from 'react';
import { Button } from '../../ui/parts/Button.js';
import { postJson } from '../../ui/parts/imports.js';

/** Where to afterwards: an address of this server and no other. */
function wanted(): string {
  const to = new URLSearchParams(location.search).get('to') ?? '/';
  return new URL(to, location.origin).origin === location.origin && to.startsWith('/') ? to : '/';
}

export function SignIn() {
  const [error, setError] = useState<string | null>(
    new URLSearchParams(location.search).has('link') ? 'This link is not known, or was taken back.' : null,
  );
  const [busy, setBusy] = useState(false);
  const ids = { name: useId(), phrase: useId(), error: useId() };
  const enter = async (event: SyntheticEvent<HTMLFormElement>) => {
    event.preventDefault();
    const said = new FormData(event.currentTarget);
    setBusy(true);
    setError(null);
    try {
      await postJson('/api/session', { name: said.get('name'), phrase: said.get('phrase') });
      location.assign(wanted());
    } catch (e) {
      setError(`${(e as Error).message.replace(/^./, (c) => c.toUpperCase())}.`);
      setBusy(false);
    }
  };
  const described = error ? { 'aria-describedby': ids.error, 'aria-invalid': true } : {};
  return (
    <main className="mx-auto max-w-[420px] px-5 py-16 max-[700px]:py-8">
      <h1 className="text-3xl font-semibold" style={{ fontStretch: '108%' }}>Anabatic</h1>
      <form className="mt-6 space-y-4" onSubmit={(e) => void enter(e)}>
        <p>
          <label htmlFor={ids.name} className="label block">Name</label>
          <input id={ids.name} name="name" className="field w-full" autoComplete="username" autoCapitalize="words" required maxLength={60} autoFocus {...described} />
        </p>
        <p>
          <label htmlFor={ids.phrase} className="label block">Pass phrase</label>
          <input id={ids.phrase} name="phrase" type="password" className="field w-full" autoComplete="current-password" required maxLength={200} {...described} />
        </p>
        {error && <p role="alert" id={ids.error} className="text-stop">{error}</p>}
        <Button strong type="submit" disabled={busy}>{busy ? 'Looking …' : 'Sign in'}</Button>
        <p className="label">
          This browser stays signed in until you sign out, or have not been here for half a year. Whoever runs this server gives
          out names and pass phrases.
        </p>
      </form>
    </main>
  );
} // prettier-ignore
