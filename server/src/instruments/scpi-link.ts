import { connect, type Socket } from 'node:net';
import type { InstrumentTrouble } from '@fairwatt/contract';

/** An instrument that did not behave. */
export class InstrumentFailure extends Error {
  readonly trouble: InstrumentTrouble;
  constructor(trouble: InstrumentTrouble) {
    super(trouble);
    this.trouble = trouble;
  }
}

const longestAnswer = 2048;

/**
 * One instrument over TCP, one question at a time. Each question carries a figure in the event mask (`*ESE n`, read
 * back by `*ESE?` in the same line), so that an answer to an earlier question is known as such. Whatever goes wrong
 * closes the link: a half answer is never kept.
 */
export class ScpiLink {
  private readonly socket: Socket;
  private buffer = '';
  private waiting: {
    readonly resolve: (line: string) => void;
    readonly reject: (failure: InstrumentFailure) => void;
  } | null = null;
  private broken: InstrumentFailure | null = null;
  private turn = 0;
  private readonly timeoutMilliseconds: number;

  private constructor(socket: Socket, timeoutMilliseconds: number) {
    this.socket = socket;
    this.timeoutMilliseconds = timeoutMilliseconds;
    socket.setNoDelay(true);
    socket.on('data', (data: Buffer) => this.take(data.toString('latin1')));
    socket.on('error', () => this.fail('vanished'));
    socket.on('close', () => this.fail('vanished'));
  }

  /** @throws InstrumentFailure `no-connection` */
  static open(host: string, port: number, timeoutMilliseconds = 1500): Promise<ScpiLink> {
    return new Promise((resolve, reject) => {
      const socket = connect({ host, port });
      const give = () => {
        socket.destroy();
        reject(new InstrumentFailure('no-connection'));
      };
      const timer = setTimeout(give, timeoutMilliseconds);
      socket.once('error', () => {
        clearTimeout(timer);
        give();
      });
      socket.once('connect', () => {
        clearTimeout(timer);
        socket.removeAllListeners('error');
        resolve(new ScpiLink(socket, timeoutMilliseconds));
      });
    });
  }

  private take(text: string): void {
    this.buffer += text;
    const end = this.buffer.indexOf('\n');
    // Unasked answers and endless ones are a flood.
    if (this.buffer.length > longestAnswer || (end >= 0 && (this.waiting === null || this.buffer.length > end + 1))) {
      this.fail('flood');
      return;
    }
    if (end < 0) return;
    const line = this.buffer.slice(0, end).trim();
    this.buffer = '';
    // Nobody waits for what came unasked: that was a flood above.
    const { waiting } = this;
    this.waiting = null;
    waiting?.resolve(line);
  }

  private fail(trouble: InstrumentTrouble): InstrumentFailure {
    this.broken ??= new InstrumentFailure(trouble);
    const waiting = this.waiting;
    this.waiting = null;
    this.socket.destroy();
    waiting?.reject(this.broken);
    return this.broken;
  }

  private exchange(line: string): Promise<string> {
    if (this.broken !== null) return Promise.reject(this.broken);
    return new Promise((resolve, reject) => {
      let open = true;
      const silent = () => {
        if (open) reject(this.fail('silent'));
      };
      // A process that was held up itself takes what has come meanwhile before it calls an instrument silent.
      const timer = setTimeout(() => setImmediate(silent), this.timeoutMilliseconds);
      const settle =
        <T>(then: (value: T) => void) =>
        (value: T) => {
          open = false;
          clearTimeout(timer);
          then(value);
        };
      this.waiting = { resolve: settle(resolve), reject: settle(reject) };
      this.socket.write(`${line}\n`);
    });
  }

  /** The answer to one question as text. @throws InstrumentFailure */
  async ask(question: string): Promise<string> {
    this.turn = (this.turn % 250) + 1;
    const turn = this.turn;
    const answer = await this.exchange(`*ESE ${turn};${question};*ESE?`);
    const cut = answer.lastIndexOf(';');
    if (cut < 0) throw this.fail(/^\d+$/.test(answer) ? 'refused' : 'nonsense');
    if (answer.slice(cut + 1) !== String(turn))
      throw this.fail(/^\d{1,3}$/.test(answer.slice(cut + 1)) ? 'stale-answer' : 'nonsense');
    return answer.slice(0, cut);
  }

  /** The answer as a figure. @throws InstrumentFailure `nonsense` for what is none, `out-of-range` for an overload */
  async askFigure(question: string): Promise<number> {
    const answer = await this.ask(question);
    if (!/^[+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?$/i.test(answer)) throw this.fail('nonsense');
    const figure = Number(answer);
    if (Math.abs(figure) >= 9e36) throw new InstrumentFailure('out-of-range');
    return figure;
  }

  /**
   * Gives an order and makes sure that it was taken. @throws InstrumentFailure `refused` when the instrument has an
   * error to tell
   */
  async order(order: string): Promise<void> {
    const answer = await this.ask(`*CLS;${order};SYSTem:ERRor?`);
    if (!/^[+-]?0\b/.test(answer)) throw new InstrumentFailure('refused');
  }

  close(): void {
    this.socket.removeAllListeners('close');
    this.socket.on('error', () => {
      /* closing */
    });
    this.socket.destroy();
    this.broken ??= new InstrumentFailure('vanished');
  }
}
