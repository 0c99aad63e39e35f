import '@fontsource-variable/atkinson-hyperlegible-next/wght.css';
import '@fontsource-variable/atkinson-hyperlegible-mono/wght.css';
import './app/style.css';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { BrowserRouter } from 'react-router';
import { api } from './app/api.ts';
import { reloadWhenPiecesAreGone } from './app/chunks.ts';
import { Root } from './app/root.tsx';
import { store } from './app/store.ts';
import { startOffline } from './offline/start.ts';

// What a job's page needs is asked for while its code is still on the way.
const code = /^\/jobs\/([A-Z]{2}-\d+)/.exec(location.pathname)?.[1];
if (code !== undefined) {
  store.dispatch(api.util.prefetch('job', code, {}));
  store.dispatch(api.util.prefetch('supplies', undefined, {}));
  store.dispatch(api.util.prefetch('knowledge', undefined, {}));
  store.dispatch(api.util.prefetch('cableBags', undefined, {}));
}
if ('serviceWorker' in navigator && import.meta.env.PROD) void navigator.serviceWorker.register('/sw.js');

reloadWhenPiecesAreGone();

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
