import { promisify } from "node:util";
import yauzl, { type Entry, type ZipFile } from "yauzl";
import { ImportProblem } from "./import-problem";

const MOST_UNPACKED = 500_000_000;
const MOST_ENTRIES = 5000;

/**
 * The files of a workbook's archive, each unpacked as a stream. What they unpack to altogether is bounded,
 * whatever the archive says.
 */
export class WorkbookArchive {
  /** What was unpacked so far, over all files. */
  bytesRead = 0;

  private constructor(
    private readonly zip: ZipFile,
    private readonly entries: Map<string, Entry>,
  ) {}

  /**
   * Opens an archive and reads its directory. Rejects with an ImportProblem where it is none, is cut short,
   * or says that it holds too much.
   */
  static async open(path: string): Promise<WorkbookArchive> {
    let zip: ZipFile;
    try {
      zip = await promisify<string, yauzl.Options, ZipFile>(yauzl.open)(path, {
        lazyEntries: true,
        autoClose: false,
      });
    } catch {
      throw new ImportProblem(
        "The workbook cannot be unpacked. It may have been cut short; save it again and bring in the new file.",
      );
    }
    const entries = new Map<string, Entry>();
    try {
      await new Promise<void>((resolve, reject) => {
        zip.on("entry", (entry: Entry) => {
          entries.set(entry.fileName, entry);
          if (entries.size > MOST_ENTRIES)
            reject(
              new ImportProblem(
                "The workbook holds too many files. Save the sheet that you need as CSV and bring in that file.",
              ),
            );
          else zip.readEntry();
        });
        zip.on("end", resolve);
        zip.on("error", () =>
          reject(
            new ImportProblem(
              "The workbook cannot be unpacked. It may have been cut short; save it again and bring in the new file.",
            ),
          ),
        );
        zip.readEntry();
      });
    } catch (error) {
      zip.close();
      throw error;
    }
    return new WorkbookArchive(zip, entries);
  }

  has(name: string): boolean {
    return this.entries.has(name);
  }

  /** How many bytes a file says it unpacks to. */
  sizeOf(name: string): number {
    return this.entries.get(name)?.uncompressedSize ?? 0;
  }

  /**
   * The text of a file, piece by piece as it is unpacked. Rejects with an ImportProblem where it holds too
   * much or something else than it says.
   */
  async *text(name: string): AsyncGenerator<string> {
    const entry = this.entries.get(name);
    if (!entry) return;
    const tooMuch = () =>
      new ImportProblem(
        `The workbook unpacks to more than ${MOST_UNPACKED / 1e6} MB. Save the sheet that you need as CSV and bring in that file.`,
      );
    if (this.bytesRead + entry.uncompressedSize > MOST_UNPACKED) throw tooMuch();
    const decoder = new TextDecoder();
    try {
      const stream = await promisify<Entry, NodeJS.ReadableStream>(
        this.zip.openReadStream.bind(this.zip) as never,
      )(entry);
      for await (const chunk of stream) {
        this.bytesRead += (chunk as Buffer).length;
        if (this.bytesRead > MOST_UNPACKED) throw tooMuch();
        yield decoder.decode(chunk as Buffer, { stream: true });
      }
    } catch (error) {
      if (error instanceof ImportProblem) throw error;
      throw new ImportProblem(
        "The workbook cannot be unpacked. It may have been cut short; save it again and bring in the new file.",
      );
    }
  }

  close(): void {
    this.zip.close();
  }
}
