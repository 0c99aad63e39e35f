import { QRCode } from 'antd';
import { looks } from '../looks/looks.ts';
import { useNetworkQuery } from './people-api.ts';
import styles from './access.module.css';

/** Where phones and other benches reach the shop, and how they come to trust it. */
export function NetworkBlock() {
  const { data } = useNetworkQuery();
  const [url] = data?.urls ?? [];
  return (
    <section className={looks.block} aria-label="On the network">
      <span className={looks.label}>On the network</span>
      {data == null || url === undefined ? (
        <p className={looks.quiet}>
          Only this machine is answered. Started with <code>./fairwatt serve --lan</code>, phones and other benches are
          too, with TLS.
        </p>
      ) : (
        <>
          <p>
            Reached at{' '}
            {data.urls.map((one, index) => (
              <span key={one} className={looks.fig}>
                {index > 0 && ', '}
                {one}
              </span>
            ))}
            .
          </p>
          {data.fingerprint !== null && (
            <div className={styles['enrol']}>
              <QRCode
                value={`${url}${data.rootPath}`}
                size={168}
                bordered={false}
                type="svg"
                color="#1C2422"
                bgColor="#FFFFFF"
              />
              <ol className={styles['steps']}>
                <li>
                  Scan this with the phone, and go on past its warning this one time: it fetches the shop’s certificate,
                  which is <a href={data.rootPath}>here as a file</a> too.
                </li>
                <li>
                  Install it as a certificate authority: in the phone’s settings for security or profiles, and on some
                  phones trust it there once more.
                </li>
                <li>
                  Compare what the phone calls SHA-256 with <span className={looks.fig}>{data.fingerprint}</span>.
                  Another one is somebody else’s: take it out.
                </li>
                <li>Then enrol the phone as a device, above.</li>
              </ol>
            </div>
          )}
        </>
      )}
    </section>
  );
}
