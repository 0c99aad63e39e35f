import { Input } from 'antd';

export interface TypedSecret {
  readonly secret: string;
  readonly again: string;
}

/** A new secret, typed twice. */
export function SecretFields({
  typed,
  onTyped,
}: {
  readonly typed: TypedSecret;
  readonly onTyped: (typed: TypedSecret) => void;
}) {
  return (
    <>
      <label className="field">
        <span className="name">New PIN or passphrase</span>
        <Input
          type="password"
          value={typed.secret}
          maxLength={200}
          autoComplete="new-password"
          placeholder="6 digits, or 12 letters"
          onChange={(event) => onTyped({ ...typed, secret: event.target.value })}
        />
      </label>
      <label className="field">
        <span className="name">Once more</span>
        <Input
          type="password"
          value={typed.again}
          maxLength={200}
          autoComplete="new-password"
          onChange={(event) => onTyped({ ...typed, again: event.target.value })}
        />
      </label>
    </>
  );
}
