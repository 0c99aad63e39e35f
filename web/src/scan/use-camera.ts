import { useEffect, useState, type RefObject } from 'react';

/** So long is waited between two looks: a hand needs longer to hold a code still. */
const lookMilliseconds = 200;

export type Camera = 'asked' | 'on' | 'none';

/**
 * Shows what the camera at the back sees, and has a look at it again and again until the screen is left. `none` where
 * there is no camera, or nobody may use it.
 */
export function useCamera(
  screen: RefObject<HTMLVideoElement | null>,
  look: (picture: ImageBitmap) => Promise<void>,
): Camera {
  const [camera, setCamera] = useState<Camera>('asked');
  useEffect(() => {
    let left = false;
    let stream: MediaStream | null = null;
    let timer: number | undefined;
    const lookAgain = async () => {
      const shown = screen.current;
      if (shown !== null && shown.readyState >= HTMLMediaElement.HAVE_CURRENT_DATA)
        await look(await createImageBitmap(shown));
      if (!left) timer = window.setTimeout(() => void lookAgain(), lookMilliseconds);
    };
    const begin = async () => {
      // Outside of a safe address the browser has no such thing, whatever its types say.
      const devices = navigator.mediaDevices as MediaDevices | undefined;
      const opened = await devices?.getUserMedia({ video: { facingMode: 'environment' } }).catch(() => null);
      if (opened == null) {
        if (!left) setCamera('none');
        return;
      }
      stream = opened;
      if (left || screen.current === null) {
        stop();
        return;
      }
      screen.current.srcObject = opened;
      await screen.current.play();
      setCamera('on');
      await lookAgain();
    };
    const stop = () => stream?.getTracks().forEach((track) => track.stop());
    void begin();
    return () => {
      left = true;
      window.clearTimeout(timer);
      stop();
    };
  }, [screen, look]);
  return camera;
}
