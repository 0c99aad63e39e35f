/** Answer to one command: text for a question, null for an order; an error goes into the queue. */
export type ScpiAnswer = { readonly text: string | null } | { readonly error: readonly [code: number, text: string] };

/** A command by its spelling in the standard way, such as `MEASure:VOLTage:DC?`: capitals are the short form. */
export interface ScpiCommand {
  readonly spelling: string;
  readonly run: (argument: string) => ScpiAnswer;
}

export const done: ScpiAnswer = { text: null };
export const outOfRange: ScpiAnswer = { error: [-222, 'Data out of range'] };
export const notANumber: ScpiAnswer = { error: [-104, 'Data type error'] };

/** Matches the short and the long form of each word, and nothing between. Source: IEEE 488.2, SCPI 1999. */
function matcher(spelling: string): RegExp {
  const question = spelling.endsWith('?');
  const words = spelling
    .replace('?', '')
    .split(':')
    .map((word) => {
      if (word.startsWith('*')) return `\\${word}`;
      const short = /^[A-Z0-9]+/.exec(word)?.[0] ?? word;
      return `(?:${word}|${short})`;
    });
  return new RegExp(`^:?${words.join(':')}${question ? '\\?' : ''}(?:\\s+(.*))?$`, 'i');
}

/** The language of one instrument: commands, `*IDN?`, the event mask, and the queue of errors. */
export class ScpiInterpreter {
  private readonly commands: readonly { readonly pattern: RegExp; readonly run: ScpiCommand['run'] }[];
  private errors: (readonly [number, string])[] = [];
  private eventMask = 0;

  private readonly heard: () => void;

  /** @param heard called before each line, for an instrument that watches whether it is spoken to */
  constructor(
    identity: string,
    commands: readonly ScpiCommand[],
    reset: () => void,
    heard: () => void = () => undefined,
  ) {
    this.heard = heard;
    const own: ScpiCommand[] = [
      { spelling: '*IDN?', run: () => ({ text: identity }) },
      {
        spelling: '*RST',
        run: () => {
          reset();
          return done;
        },
      },
      {
        spelling: '*CLS',
        run: () => {
          this.errors = [];
          return done;
        },
      },
      { spelling: '*OPC?', run: () => ({ text: '1' }) },
      {
        spelling: '*ESE',
        run: (argument) => {
          const mask = Number(argument);
          if (!Number.isInteger(mask)) return notANumber;
          if (mask < 0 || mask > 255) return outOfRange;
          this.eventMask = mask;
          return done;
        },
      },
      { spelling: '*ESE?', run: () => ({ text: String(this.eventMask) }) },
      {
        spelling: 'SYSTem:ERRor?',
        run: () => {
          const [code, text] = this.errors.shift() ?? [0, 'No error'];
          return { text: `${code},"${text}"` };
        },
      },
    ];
    this.commands = [...own, ...commands].map(({ spelling, run }) => ({ pattern: matcher(spelling), run }));
  }

  /**
   * One line, which may hold several commands; the answers of its questions joined by semicolons, null when it asked
   * nothing.
   */
  line(text: string): string | null {
    this.heard();
    const answers: string[] = [];
    for (const part of text
      .split(';')
      .map((item) => item.trim())
      .filter((item) => item !== '')) {
      const command = this.commands
        .map(({ pattern, run }) => ({ match: pattern.exec(part), run }))
        .find((item) => item.match !== null);
      const answer: ScpiAnswer =
        command === undefined ? { error: [-113, 'Undefined header'] } : command.run(command.match?.[1]?.trim() ?? '');
      if ('error' in answer) this.errors = [...this.errors, answer.error].slice(-20);
      else if (answer.text !== null) answers.push(answer.text);
    }
    return answers.length === 0 ? null : answers.join(';');
  }
}
