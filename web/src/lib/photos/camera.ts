/**
 * Cameras of the bench: what the browser offers (webcams, USB microscopes), and a simulated one that gives the
 * same kind of stream from a rendered picture, for practice and for machines without a camera.
 */
const SIMULATED = 'simulated';
/** A rendered board that ships with the app. */
const SIMULATED_PICTURE = '/practice/bramble-top.jpg';

export interface CameraChoice {
  id: string;
  label: string;
}

/** Cameras by name, the simulated one last. Names of real ones are known once one was allowed. */
export async function listCameras(): Promise<CameraChoice[]> {
  const devices = (await navigator.mediaDevices?.enumerateDevices().catch(() => [])) ?? [];
  const real = devices
    .filter((d) => d.kind === 'videoinput')
    .map((d, i) => ({ id: d.deviceId, label: d.label || `camera ${i + 1}` }));
  return [...real, { id: SIMULATED, label: 'simulated microscope' }];
}

/** A stream that `end` stops. Rejects with the browser's reason. */
export async function openCamera(id: string): Promise<{ stream: MediaStream; end: () => void }> {
  if (id === SIMULATED) return openSimulated();
  const stream = await navigator.mediaDevices.getUserMedia({
    video: { ...(id ? { deviceId: { exact: id } } : {}), width: { ideal: 2560 }, height: { ideal: 1440 } },
  });
  return { stream, end: () => stream.getTracks().forEach((t) => t.stop()) };
}

async function openSimulated(): Promise<{ stream: MediaStream; end: () => void }> {
  const image = new Image();
  image.src = SIMULATED_PICTURE;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = image.naturalWidth;
  canvas.height = image.naturalHeight;
  const draw = () => canvas.getContext('2d')?.drawImage(image, 0, 0);
  draw();
  // a stream has frames only while the canvas is drawn on
  const timer = setInterval(draw, 100);
  const stream = canvas.captureStream(10);
  return {
    stream,
    end: () => {
      clearInterval(timer);
      stream.getTracks().forEach((t) => t.stop());
    },
  };
}
