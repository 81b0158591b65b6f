/** Says who one is, and goes on where one wanted to. */
import { useId, useState, type SyntheticEvent } from 'react';
import { Button } from '../../ui/parts/Button.js';
import { sentence } from '../../core/base/words.js';
import { postJson, type Refusal } from '../../ui/parts/ask.js';
import { FormField } from './FormField.js';

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
  const errorId = useId();
  const enter = async (event: SyntheticEvent<HTMLFormElement>) => {
    event.preventDefault();
    const said = new FormData(event.currentTarget);
    setBusy(true);
    setError(null);
    try {
      await postJson('/api/session', { name: said.get('name'), phrase: said.get('phrase') });
      location.assign(wanted());
    } catch (e) {
      setError(sentence((e as Refusal).reason));
      setBusy(false);
    }
  };
  const described = error ? { 'aria-describedby': errorId, 'aria-invalid': true } : {};
  return (
    <main className="mx-auto max-w-[420px] px-5 py-16 max-[700px]:py-8">
      <h1 className="text-3xl font-semibold" style={{ fontStretch: '108%' }}>Anabatic</h1>
      <form className="mt-6 space-y-4" onSubmit={(e) => void enter(e)}>
        <FormField label="Name" name="name" className="w-full" autoComplete="username" autoCapitalize="words" maxLength={60} autoFocus {...described} />
        <FormField label="Pass phrase" name="phrase" type="password" className="w-full" autoComplete="current-password" maxLength={200} {...described} />
        {error && <p role="alert" id={errorId} className="text-stop">{error}</p>}
        <Button strong type="submit" disabled={busy}>{busy ? 'Looking …' : 'Sign in'}</Button>
        <p className="label">
          This browser stays signed in until you sign out, or have not been here for half a year. Whoever runs this server gives
          out names and pass phrases.
        </p>
      </form>
    </main>
  );
} // prettier-ignore
