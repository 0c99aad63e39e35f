import './app/no-made-code.ts';
import '@fontsource-variable/atkinson-hyperlegible-next/wght.css';
import '@fontsource-variable/atkinson-hyperlegible-mono/wght.css';
import './app/style.css';
import './looks/looks.ts';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { BrowserRouter } from 'react-router';
import { askAhead } from './app/ahead.ts';
import { reloadWhenPiecesAreGone } from './app/chunks.ts';
import { Root } from './app/root.tsx';
import { store } from './app/store.ts';
import { signStyles } from './app/style-nonce.ts';
import { isServerThere } from './offline/server-there.ts';
import { startOffline } from './offline/start.ts';

if ('serviceWorker' in navigator && import.meta.env.PROD) void navigator.serviceWorker.register('/sw.js');

reloadWhenPiecesAreGone({
  isThere: isServerThere,
  wouldLose: () => {
    const { storage, parcels } = store.getState().outbox;
    return storage === 'memory' && parcels.length > 0;
  },
});
signStyles();
askAhead(store, location.pathname);

const element = document.getElementById('root');
if (element === null) throw new Error('the page has no root');
// What an earlier visit left unsent is at hand before the first screen is drawn.
await startOffline(store);
createRoot(element).render(
  <Provider store={store}>
    <BrowserRouter>
      <Root />
    </BrowserRouter>
  </Provider>,
);
