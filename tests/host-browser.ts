import { request, type IncomingHttpHeaders } from 'node:http';

export interface Heard<T> {
  readonly status: number;
  readonly headers: IncomingHttpHeaders;
  readonly body: T;
}

/** A browser that reaches a server of this machine under a name of its own, with its own cookies. */
export class HostBrowser {
  private readonly cookies = new Map<string, string>();
  private readonly port: string;
  private readonly host: string;

  constructor(url: string, host: string) {
    this.port = new URL(url).port;
    this.host = host;
  }

  private keep(lines: readonly string[] = []): void {
    for (const line of lines) {
      const [, name = '', value = ''] = /^([^=]+)=([^;]*)/.exec(line) ?? [];
      this.cookies.set(name, value);
    }
  }

  /** @throws when the line breaks before the answer is whole */
  ask<T = unknown>(method: string, path: string, body?: unknown): Promise<Heard<T>> {
    const cookie = [...this.cookies].map(([name, value]) => `${name}=${value}`).join('; ');
    const headers = {
      host: `${this.host}:${this.port}`,
      ...(cookie === '' ? {} : { cookie }),
      ...(body === undefined ? {} : { 'content-type': 'application/json' }),
    };
    return new Promise((resolve, reject) => {
      const outgoing = request(
        { host: '127.0.0.1', port: this.port, method, path: `/api${path}`, headers },
        (answer) => {
          this.keep(answer.headers['set-cookie']);
          let text = '';
          answer.on('data', (chunk: Buffer) => (text += chunk.toString()));
          answer.on('error', reject);
          answer.on('end', () => {
            const json = answer.headers['content-type']?.includes('json') === true;
            const read = (json && text !== '' ? JSON.parse(text) : text) as T;
            resolve({ status: answer.statusCode ?? 0, headers: answer.headers, body: read });
          });
        },
      );
      outgoing.on('error', reject);
      outgoing.end(body === undefined ? undefined : JSON.stringify(body));
    });
  }
}
