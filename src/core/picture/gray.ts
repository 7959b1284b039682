/** A picture in shades of grey: one byte a pixel, row after row from the top left, 0 black to 255 white. */
export interface GrayPicture {
	width: number;
	height: number;
	data: Uint8ClampedArray;
}

/** A place in a picture, pixels from its top left corner. */
export interface Point {
	x: number;
	y: number;
}

/** An empty picture. @param shade of every pixel */
export const grayPicture = (width: number, height: number, shade = 0): GrayPicture => ({
	width,
	height,
	data: new Uint8ClampedArray(width * height).fill(shade)
});

/**
 * A picture of a screen or camera without its colours.
 * Published: the weights of ITU-R BT.601 for brightness; from memory.
 * @param rgba four bytes a pixel
 */
export function grayOf(width: number, height: number, rgba: Uint8ClampedArray): GrayPicture {
	const gray = grayPicture(width, height);
	for (let i = 0; i < width * height; i++)
		gray.data[i] =
			0.299 * (rgba[4 * i] ?? 0) + 0.587 * (rgba[4 * i + 1] ?? 0) + 0.114 * (rgba[4 * i + 2] ?? 0);
	return gray;
}

/** The shade between four pixels; the nearest edge beyond the picture. */
export function shadeAt({ width, height, data }: GrayPicture, x: number, y: number): number {
	const [cx, cy] = [
		Math.max(0, Math.min(width - 1.001, x)),
		Math.max(0, Math.min(height - 1.001, y))
	];
	const [left, top] = [Math.floor(cx), Math.floor(cy)];
	const [fx, fy] = [cx - left, cy - top];
	const at = top * width + left;
	const upper = (data[at] ?? 0) * (1 - fx) + (data[at + 1] ?? 0) * fx;
	const lower = (data[at + width] ?? 0) * (1 - fx) + (data[at + width + 1] ?? 0) * fx;
	return upper * (1 - fy) + lower * fy;
}
