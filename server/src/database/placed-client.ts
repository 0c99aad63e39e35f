import { Socket } from 'node:net';
import pg from 'pg';
import type { Primary } from './primary.ts';

const sockets = new WeakMap<pg.ClientBase, Socket>();

/**
 * What is asked of a connection in this piece of work leaves in one piece: the database is not woken for each statement,
 * which on a small machine takes the processor from who asks.
 */
export function inOnePiece<T>(client: pg.ClientBase, work: () => T): T {
  const socket = sockets.get(client);
  socket?.cork();
  try {
    return work();
  } finally {
    socket?.uncork();
  }
}

/**
 * Connections to where the database takes writes at the time when each is made. One that leads elsewhere after a move
 * is cut: a machine that is gone would not say so for minutes.
 */
export function placedClients(primary: Primary): new (config?: pg.ClientConfig) => pg.Client {
  const connected = new Set<PlacedClient>();

  class PlacedClient extends pg.Client {
    private readonly place: string;
    private readonly socket: Socket;

    constructor(config: pg.ClientConfig = {}) {
      const socket = new Socket();
      const place = primary.url;
      super({ ...config, connectionString: place, keepAlive: true, stream: () => socket });
      this.place = place;
      this.socket = socket;
      sockets.set(this, socket);
      connected.add(this);
      this.once('end', () => {
        connected.delete(this);
        primary.look();
      });
    }

    cutIfElsewhere(): void {
      if (this.place !== primary.url) this.socket.destroy();
    }
  }

  primary.onMove(() => {
    for (const client of connected) client.cutIfElsewhere();
  });
  return PlacedClient;
}
