import type { Aid } from '@/core/picture/aids/aids';
import type { Looking } from '@/core/picture/aids/definition';
import type { Piece } from '@/core/commands/families/pasting';
import type { Command } from '@/core/commands/commands';
import type { MassBalance } from '@/core/film/ledger';
import type { PaintingSpec } from '@/core/film/painting';
import type { Crop } from '@/core/picture/unlit';
import type { CoreSample } from '@/core/picture/coreSample';
import type { FilmHistory } from '@/core/journal/toldCore';
import type { Ageing } from '@/core/colour/ageing';
import type { Blame } from '@/core/picture/ageingBlame';
import type { Proof, TubeUsed } from '@/core/picture/tubesUsed';
import type { SpotReading } from '@/core/picture/readings';
import type { Made } from '@/core/formats/exports/definition';
import type { ExportId } from '@/core/formats/exports/exports';
import type { LeadingLine } from '@/core/study/looking/directions';
import type { Masses } from '@/core/study/looking/masses';
import type { Pull } from '@/core/study/looking/pull';
import type { Study } from '@/core/study/looking/studyOf';
import type { Counts } from '@/core/study/histogram';

/** What the page may ask the engine, each question with what it tells and what it is answered. */

/** A small picture of the painting, through an aid or as it is. */
export interface GlassPicture {
  readonly aid: Aid;
  readonly width: number;
  readonly height: number;
  readonly rgba: Uint8ClampedArray<ArrayBuffer>;
  /** Of the masses: how often each of a hundred values occurs, and the masses themselves. */
  readonly masses?: { readonly values: readonly number[]; readonly of: Masses };
  /** It shows the relief in raking light. */
  readonly raking?: true;
}

/** What the study desk shows and says. */
export interface Studied {
  readonly width: number;
  readonly height: number;
  /** Canvas, photo and the map of their differences, RGBA. */
  readonly canvas: Uint8ClampedArray<ArrayBuffer>;
  readonly photo?: Uint8ClampedArray<ArrayBuffer>;
  readonly map?: Uint8ClampedArray<ArrayBuffer>;
  readonly study: Study;
  readonly pull?: Pull;
  /** Strong straight directions of the canvas, asked for with its pull. */
  readonly leading?: readonly LeadingLine[];
}

/** A piece that is about to be moved. */
export interface PieceShown {
  /** Where it lies, mm. */
  readonly box: { readonly left: number; readonly top: number; readonly right: number; readonly bottom: number };
  readonly width: number;
  readonly height: number;
  readonly rgba: Uint8ClampedArray<ArrayBuffer>;
}

/** How wet paper is at a place: depth of the film, um; moisture in the paper, 0..1 of what it holds. */
export interface PaperState {
  readonly filmUm: number;
  readonly damp: number;
}

/** What is told with each question. */
interface Asked {
  /** mm on the painting or the slab; averaged over a radius; of all that is seen, or of one layer alone. */
  readonly spot: {
    readonly x: number;
    readonly y: number;
    readonly on?: 'slab';
    readonly radiusMm?: number;
    readonly layer?: string;
  };
  /** How wet the layer that is painted on is at a place, mm. */
  readonly paper: { readonly x: number; readonly y: number };
  /** Outlines of what is selected, or of what a layer has, mm. */
  readonly outlines: { readonly layer?: string };
  /** How layers, or what is selected of them, look: to be shown while they are moved. */
  readonly piece: { readonly layers: readonly string[]; readonly most: number };
  /** A copy of what is on the layer in hand, or of what is selected of it, to be laid elsewhere. */
  readonly copy: object;
  /** How often each code is there in the unlit picture below a layer, or in all of it: red, green, blue, luma. */
  readonly histogram: { readonly below?: string };
  /** The whole picture, so wide, through each aid: the looking glass. */
  readonly glass: { readonly width: number; readonly how: Looking };
  /** The whole picture as it is, in no more pixels than this on either side: for who looks on. */
  readonly glance: { readonly most: number };
  /** The whole picture in so many pixels, through an aid, and measured beside a photo in register with it, as many. */
  readonly study: {
    readonly width: number;
    readonly height: number;
    readonly aid: Aid;
    readonly how: Looking;
    readonly net: readonly [columns: number, rows: number];
    readonly photo?: Uint32Array;
    /** Which part of it; all where it is left out. */
    readonly crop?: Crop;
    /** Whether they are compared mass by mass of the photo, and not by the net. */
    readonly byMass?: boolean;
    /** Whether it is asked where the canvas pulls. */
    readonly pull?: boolean;
  };
  /** What lies along a line through the paint, mm: so many cores. */
  readonly section: {
    readonly from: { readonly x: number; readonly y: number };
    readonly to: { readonly x: number; readonly y: number };
    readonly count: number;
  };
  /** Tubes on the canvas. */
  readonly tubes: object;
  /** How it would look with one tube replaced, or as it is. */
  readonly proof: { readonly width: number; readonly change?: { from: string; to: string; factor: number } };
  /** Which tubes are to blame for what it loses in some years. */
  readonly blame: { readonly ageing: Ageing };
  /** The painting as a file. */
  readonly export: {
    readonly as: ExportId;
    readonly title: string;
    readonly settings?: Record<string, unknown>;
    /** Becomes other than 0 when nobody waits for it any more, where memory can be shared. */
    readonly givenUp?: Int32Array;
  };
  /** What it was begun with, and the commands that led to it. */
  readonly journal: object;
  readonly state: object;
  /** Whether everything so far is written: answered once it is. */
  readonly kept: object;
  /** The same, answered once it is also done and shown. */
  readonly rest: object;
}

/** What each question is answered. */
export interface Answers {
  readonly spot: SpotReading | null;
  readonly paper: PaperState;
  readonly outlines: [number, number][][];
  readonly piece: PieceShown | null;
  readonly copy: Piece;
  readonly glass: GlassPicture[];
  readonly glance: GlassPicture;
  readonly study: Studied;
  /** Cores; and of a single one how its films came there. */
  readonly section: { readonly cores: CoreSample[]; readonly told: FilmHistory[] };
  readonly histogram: Counts;
  readonly tubes: TubeUsed[];
  readonly proof: Proof;
  readonly blame: Blame;
  readonly export: Made;
  readonly journal: { readonly begun: PaintingSpec; readonly history: readonly Command[] };
  readonly state: { readonly digest: string; readonly mass: Record<string, MassBalance> };
  readonly kept: true;
  readonly rest: true;
}

export type About = keyof Answers;

/** A question, or those about something. */
export type Question<K extends About = About> = { [P in K]: { readonly of: P } & Asked[P] }[K];

/** An answer on its way to the page. */
export type Reply<K extends About = About> = {
  [P in K]: { readonly say: 'answer'; readonly id: number; readonly of: P; readonly answer: Answers[P] };
}[K];

/** How far an answer is that takes long, 0..1. */
export interface Answering {
  readonly say: 'answering';
  readonly id: number;
  readonly share: number;
}

/** That there is no answer, and why: a sentence to be shown as it is. */
export interface NoAnswer {
  readonly say: 'no-answer';
  readonly id: number;
  readonly why: string;
}

/** Whether a reply is about what was asked. */
export const isAbout = <K extends About>(reply: Reply, of: K): reply is Extract<Reply, { of: K }> & Reply<K> =>
  reply.of === of;
