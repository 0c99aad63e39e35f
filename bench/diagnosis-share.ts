// One share of the simulated jobs in a process of its own; its arguments come as one message.
import { loadModel } from '@fairwatt/server';
import { searchShare } from './diagnosis-worlds.ts';

process.once('message', (message: { which: number; jobs: number; share: number; shares: number }) => {
  void loadModel().then((shipped) =>
    process.send!(searchShare(shipped, message.which, message.jobs, message.share, message.shares), () =>
      process.disconnect(),
    ),
  );
});
