import sharp from 'sharp';
import { codeSvg } from '../../src/lib/server/web/codes.ts';
import type { GrayPicture } from '../../src/core/picture/gray.ts';

/** Millimetres of a label: as the app prints it. */
const [WIDE, TALL, CODE] = [70, 36, 22];

function placed(svg: string, x: number, y: number): string {
	const [, width = '1'] = /viewBox="0 0 (\d+) \d+"/.exec(svg) ?? [];
	const inner = svg.replace(/^[\s\S]*?<svg[^>]*>/, '').replace(/<\/svg>\s*$/, '');
	return `<g transform="translate(${x},${y}) scale(${CODE / Number(width)})">${inner}</g>`;
}

/**
 * A printed label as a flat picture.
 * @param hidden which of its codes a thumb covers the half of
 */
export async function labelPicture(
	text: string,
	widthPx: number,
	hidden = false
): Promise<GrayPicture> {
	const escaped = text.replace(/[<>&"]/g, (sign) => `&#${sign.charCodeAt(0)};`);
	// As long as it is, it ends before its codes.
	const letterMm = Math.min(6, 38 / (0.62 * [...text].length));
	const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${widthPx}" height="${Math.round((widthPx * TALL) / WIDE)}" viewBox="0 0 ${WIDE} ${TALL}">
<rect width="${WIDE}" height="${TALL}" fill="#fff"/><rect x=".4" y=".4" width="${WIDE - 0.8}" height="${TALL - 0.8}" fill="none" stroke="#000" stroke-width=".5"/>
<text x="4" y="9" font-size="${letterMm}" font-weight="bold" font-family="monospace">${escaped}</text>
${placed(codeSvg('qrcode', text), 44, 3)}${placed(codeSvg('code128', text), 44, 26)}
${hidden ? `<ellipse cx="62" cy="22" rx="12" ry="16" fill="#8a6a58"/>` : ''}</svg>`;
	const { data, info } = await sharp(Buffer.from(svg))
		.flatten({ background: '#fff' })
		.grayscale()
		.raw()
		.toBuffer({ resolveWithObject: true });
	return { width: info.width, height: info.height, data: new Uint8ClampedArray(data) };
}
