/**
 * Photos on their way in: decoded and encoded anew, so that nothing but the picture is stored (no place, no camera,
 * no hidden file), at most 2560 px, with a thumbnail.
 */
import jpeg from 'jpeg-js';

const MOST_PX = 2560;
const THUMB_PX = 320;
/** More than a browser should send after making it smaller, megapixels. */
const MOST_MP = 20;

interface Picture {
  width: number;
  height: number;
  data: Uint8Array;
}

export class PhotoError extends Error {}

/** Makes a picture smaller by averaging, so that the longer side has at most `most` px. */
function fit(p: Picture, most: number): Picture {
  const factor = Math.max(p.width, p.height) / most;
  if (factor <= 1) return p;
  const [width, height] = [Math.max(1, Math.round(p.width / factor)), Math.max(1, Math.round(p.height / factor))];
  const data = new Uint8Array(width * height * 4);
  for (let y = 0; y < height; y++) {
    const [y0, y1] = [Math.floor((y * p.height) / height), Math.max(1, Math.floor(((y + 1) * p.height) / height))];
    for (let x = 0; x < width; x++) {
      const [x0, x1] = [Math.floor((x * p.width) / width), Math.max(1, Math.floor(((x + 1) * p.width) / width))];
      const sum = [0, 0, 0];
      for (let v = y0; v < y1; v++)
        for (let u = x0; u < x1; u++) for (let c = 0; c < 3; c++) sum[c] += p.data[(v * p.width + u) * 4 + c];
      const n = (x1 - x0) * (y1 - y0);
      const at = (y * width + x) * 4;
      for (let c = 0; c < 3; c++) data[at + c] = sum[c] / n;
      data[at + 3] = 255;
    }
  }
  return { width, height, data };
}

/** Throws `PhotoError` when the bytes are no JPEG picture of a bearable size. */
export function readPhoto(bytes: Uint8Array) {
  let picture: Picture;
  try {
    // size and pixels only: the encoder would write place and comments of the original again
    const { width, height, data } = jpeg.decode(bytes, {
      useTArray: true,
      formatAsRGBA: true,
      maxResolutionInMP: MOST_MP,
      maxMemoryUsageInMB: 400,
    });
    picture = { width, height, data };
  } catch {
    throw new PhotoError(`A JPEG picture of at most ${MOST_MP} megapixels.`);
  }
  if (picture.width < 16 || picture.height < 16) throw new PhotoError('A picture of at least 16 × 16 pixels.');
  const image = fit(picture, MOST_PX);
  const thumbnail = fit(image, THUMB_PX);
  return {
    width: image.width,
    height: image.height,
    image: jpeg.encode({ ...image, data: Buffer.from(image.data) }, 80).data,
    thumbnail: jpeg.encode({ ...thumbnail, data: Buffer.from(thumbnail.data) }, 75).data,
  };
}
