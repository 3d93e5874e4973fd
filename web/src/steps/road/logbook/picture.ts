import { HEAVIEST_PHOTO, LARGEST_PICTURE, WIDEST_PHOTO, type Photo } from '@yunta/core/rig/photo';
import { ok, refuse, type Refusal, type Result } from '@yunta/core/rig/result';

export const PICTURE_KINDS = ['image/jpeg', 'image/png', 'image/webp'];
const SIDES = [WIDEST_PHOTO, 960, 640];
const QUALITIES = [0.8, 0.65, 0.5];
const MB = 1_000_000;

const no = (name: string, wrong: string, would: string): Result<never, readonly Refusal[]> =>
  refuse([{ code: 'picture', where: name.slice(0, 60), wrong, would }]);

/**
 * A picture drawn anew, small enough to be kept with the rig. Where and with what it was taken stood in its file, and
 * is not drawn.
 */
export const madeSmaller = async (file: File): Promise<Result<Pick<Photo, 'jpeg' | 'px'>, readonly Refusal[]>> => {
  if (!PICTURE_KINDS.includes(file.type))
    return no(file.name, 'This is no picture that can be read here.', 'Choose a JPEG, PNG or WebP picture.');
  if (file.size > LARGEST_PICTURE)
    return no(
      file.name,
      `The picture has ${Math.round(file.size / MB)} MB.`,
      `At most ${LARGEST_PICTURE / MB} MB are read. Take it smaller, or send it smaller from the camera.`,
    );
  const picture = await createImageBitmap(file).catch(() => undefined);
  if (!picture) return no(file.name, 'The file is damaged, or is another kind than its name says.', 'Take it again.');
  for (const side of SIDES)
    for (const quality of QUALITIES) {
      const drawn = await drawnAs(picture, side, quality);
      if (drawn.jpeg.length <= HEAVIEST_PHOTO) return ok(drawn);
    }
  return no(file.name, 'It cannot be made small enough.', 'Take a picture of less at a time.');
};

const drawnAs = async (picture: ImageBitmap, side: number, quality: number): Promise<Pick<Photo, 'jpeg' | 'px'>> => {
  const scale = Math.min(1, side / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(picture.width * scale));
  canvas.height = Math.max(1, Math.round(picture.height * scale));
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  const url = canvas.toDataURL('image/jpeg', quality);
  return { jpeg: url.slice(url.indexOf(',') + 1), px: [canvas.width, canvas.height] };
};
