package ironing.core.archive;

import java.io.EOFException;
import java.io.IOException;

/** Reading the archive failed, as opposed to writing to this machine's disk. */
final class ReadFailure extends RuntimeException {
  private static final long serialVersionUID = 1;
  private final String entry;

  /**
   * @param entry null where no entry was being read
   */
  ReadFailure(String entry, Throwable cause) {
    super(cause);
    this.entry = entry;
  }

  String entry() {
    return entry;
  }

  String where() {
    String what = getCause() instanceof EOFException ? ": it ends too early" : "";
    return (entry == null ? "" : " at the entry “" + entry + "”") + what;
  }

  /** Something that reads from an archive. */
  interface Opening<T> {
    T open() throws IOException;
  }

  /** Runs it; what a damaged archive makes a decoder throw comes out as a failure of reading. */
  static <T> T opening(String entry, Opening<T> opening) {
    try {
      return opening.open();
    } catch (IOException | RuntimeException e) {
      throw new ReadFailure(entry, e);
    }
  }
}
