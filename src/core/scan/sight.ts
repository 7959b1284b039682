import type { Point } from '../picture/gray.ts';

/** A code that a look at the picture found. */
export interface SightedCode {
	/** What it says; null: it is one, and cannot be read, as of a label that is half hidden. */
	text: string | null;
	kind: 'qr' | 'bar';
	/** Its corners, px. */
	corners: readonly Point[];
}

/** A label in view: all codes that say the same. */
export interface SightedLabel {
	text: string;
	middle: Point;
	/** Of its largest code. */
	corners: readonly Point[];
}

/** What came of a look. */
export interface Sight {
	labels: SightedLabel[];
	/** Taken with this look; each label once while it is held there. */
	taken: SightedLabel | null;
	says: 'nothing' | 'hidden' | 'several' | 'one';
}

/** A label is taken again when it was out of view for so long, s. Site. */
const AGAIN_S = 1.5;
/** Of several, the one so near to the middle is meant, as a share of the width. Site. */
export const AIM = 0.16;
/** And if every other is so many times as far from it. Site. */
const CLEARLY = 1.6;
/** A code that cannot be read has to stay for so many looks before it is said. Site. */
const HIDDEN_LOOKS = 3;

const middleOf = (corners: readonly Point[]): Point => ({
	x: corners.reduce((sum, { x }) => sum + x, 0) / Math.max(1, corners.length),
	y: corners.reduce((sum, { y }) => sum + y, 0) / Math.max(1, corners.length)
});

/** Twice the area of a polygon (Gauss's shoelace, published). */
const areaOf = (corners: readonly Point[]): number =>
	Math.abs(
		corners.reduce((sum, { x, y }, i) => {
			const next = corners[(i + 1) % corners.length] ?? { x, y };
			return sum + x * next.y - next.x * y;
		}, 0)
	);

/**
 * Follows what a camera sees and says which label is meant: the only one in view, or of several the one that is held
 * in the middle. Each is taken once while it is held there. A bar code counts when two looks in a row read the same; a
 * square code has its own correction and counts at once.
 */
export class ScanSight {
	private bars: ReadonlySet<string> = new Set();
	private readonly lastSeen = new Map<string, number>();
	private unread = 0;

	/**
	 * @param seen what was found in this picture
	 * @param frame px
	 * @param atS when, s; growing
	 */
	look(seen: readonly SightedCode[], frame: { width: number; height: number }, atS: number): Sight {
		const labels = this.labelsOf(seen);
		const meant = this.meant(labels, frame);
		const hidden = labels.length === 0 && seen.some(({ text }) => text === null);
		this.unread = hidden ? this.unread + 1 : 0;
		let taken: SightedLabel | null = null;
		if (meant && atS - (this.lastSeen.get(meant.text) ?? -Infinity) >= AGAIN_S) taken = meant;
		// What lies beside the one that is meant was not taken: it may come next, without leaving the view.
		for (const { text } of labels)
			if (text === taken?.text || this.lastSeen.has(text)) this.lastSeen.set(text, atS);
		for (const [text, at] of this.lastSeen) if (atS - at >= AGAIN_S) this.lastSeen.delete(text);
		return {
			labels,
			taken,
			says: meant
				? 'one'
				: labels.length > 1
					? 'several'
					: this.unread >= HIDDEN_LOOKS
						? 'hidden'
						: 'nothing'
		};
	}

	/** Takes the one of several that was pointed at. */
	take(text: string, atS: number): void {
		this.lastSeen.set(text, atS);
	}

	private labelsOf(seen: readonly SightedCode[]): SightedLabel[] {
		const bars = new Set(seen.flatMap(({ kind, text }) => (kind === 'bar' && text ? [text] : [])));
		const read = seen.filter(
			({ kind, text }) => text !== null && (kind === 'qr' || this.bars.has(text))
		);
		this.bars = bars;
		const labels = new Map<string, SightedLabel & { area: number }>();
		for (const { text, corners } of read) {
			const area = areaOf(corners);
			if (text !== null && area >= (labels.get(text)?.area ?? 0))
				labels.set(text, { text, corners, middle: middleOf(corners), area });
		}
		return [...labels.values()].map(({ text, middle, corners }) => ({ text, middle, corners }));
	}

	private meant(
		labels: readonly SightedLabel[],
		{ width, height }: { width: number; height: number }
	): SightedLabel | null {
		if (labels.length <= 1) return labels[0] ?? null;
		const [first, second] = labels
			.map((label) => ({
				label,
				far: Math.hypot(label.middle.x - width / 2, label.middle.y - height / 2)
			}))
			.sort((a, b) => a.far - b.far);
		if (!first || !second) return null;
		return first.far <= AIM * width && second.far >= CLEARLY * first.far ? first.label : null;
	}
}
