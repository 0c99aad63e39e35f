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
import { startOffline } from './offline/start.ts';

if ('serviceWorker' in navigator && import.meta.env.PROD) void navigator.serviceWorker.register('/sw.js');

reloadWhenPiecesAreGone(() => store.getState().connection === 'away');
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
