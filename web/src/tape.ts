/** A tape, frame by frame, as a film of it hears it. */

import { bytesOf, floatsOf, wordsOf } from "./bytes";
import type { TapeData } from "./data";

class Course {
  private readonly news: Uint8Array;
  private readonly values: Float32Array;
  /** Values that came before each frame. */
  private readonly before: Uint32Array;

  constructor(news: string, values: string, frames: number) {
    this.news = bytesOf(news);
    this.values = floatsOf(values);
    this.before = new Uint32Array(frames + 1);
    for (let i = 0; i < frames; i++) this.before[i + 1] = this.before[i]! + (this.isNew(i) ? 1 : 0);
  }

  isNew(frame: number): boolean {
    return ((this.news[frame >> 3] ?? 0) & (1 << (frame & 7))) !== 0;
  }

  /** The newest value up to a frame; none where none has come. */
  last(frame: number): number | undefined {
    const count = this.before[Math.min(frame + 1, this.before.length - 1)]!;
    return count > 0 ? this.values[count - 1] : undefined;
  }
}

export class Tape {
  readonly name: string;
  readonly frames: number;
  private readonly clock: Uint32Array;
  private readonly courses = new Map<string, Course>();

  constructor(data: TapeData) {
    this.name = data.name;
    this.frames = data.frames;
    this.clock = wordsOf(data.clock_ms);
    for (const [part, course] of Object.entries(data.courses)) {
      this.courses.set(part, new Course(course.news, course.values, data.frames));
    }
  }

  has(part: string): boolean {
    return this.courses.has(part);
  }

  clockMs(frame: number): number | undefined {
    return this.clock[frame];
  }

  /** What comes with a frame. */
  news(part: string, frame: number): number | undefined {
    const course = this.courses.get(part);
    return course && frame < this.frames && course.isNew(frame) ? course.last(frame) : undefined;
  }

  last(part: string, frame: number): number | undefined {
    return this.courses.get(part)?.last(frame);
  }
}
