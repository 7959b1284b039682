import type { GrayPicture } from '../../src/core/picture/gray.ts';

/**
 * Pictures as an uncompressed film (YUV4MPEG2, 4:2:0, without colour), as a camera that is played from a file takes it.
 * Published: the format of the mjpegtools; from memory.
 * @param pictures all of one size, even in both directions
 * @param perSecond pictures a second
 */
export function y4mOf(pictures: readonly GrayPicture[], perSecond: number): Buffer {
	const [first] = pictures;
	if (!first) throw new RangeError('a film needs a picture');
	const { width, height } = first;
	if (width % 2 || height % 2) throw new RangeError('sides are even');
	const noColour = Buffer.alloc((width * height) / 2, 128);
	return Buffer.concat([
		Buffer.from(`YUV4MPEG2 W${width} H${height} F${perSecond}:1 Ip A1:1 C420mpeg2\n`, 'latin1'),
		...pictures.flatMap((picture) => {
			if (picture.width !== width || picture.height !== height)
				throw new RangeError('pictures of a film have one size');
			return [Buffer.from('FRAME\n', 'latin1'), Buffer.from(picture.data), noColour];
		})
	]);
}
