package ironing.server.catalogue;

import ironing.core.catalogue.Catalogue.Part;
import ironing.core.catalogue.PartLines;
import ironing.core.catalogue.PartLines.Line;
import ironing.core.catalogue.PartLines.Mistake;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CancellationException;
import java.util.function.Function;

/**
 * Reads parts by a thread of its own, some pieces ahead of whoever writes them down: the database
 * and the reading are busy side by side.
 */
final class PartReading implements AutoCloseable {
  private static final int LINES_AT_ONCE = 1_000;
  private static final int PIECES_AHEAD = 4;

  private final BlockingQueue<Piece> pieces = new ArrayBlockingQueue<>(PIECES_AHEAD);
  private final Thread reader;
  private volatile Exception failed;

  /**
   * Some lines of a part.
   *
   * @param rows what is written of them
   * @param mistakes lines of the part that were left out; told with its last piece
   * @param isLast whether the part ends with it
   * @param isFailed whether reading has failed, and nothing more comes
   */
  record Piece(
      List<Line> lines, String rows, List<Mistake> mistakes, boolean isLast, boolean isFailed) {}

  /**
   * @param files in the order in which they are written
   * @param rows what is written of lines
   */
  PartReading(Map<Part, Path> files, Function<List<Line>, String> rows) {
    reader = new Thread(() -> read(files, rows), "catalogue-reader");
    reader.setDaemon(true);
    reader.start();
  }

  /** The next piece, waited for. */
  Piece next() throws IOException {
    try {
      Piece piece = pieces.take();
      if (!piece.isFailed()) return piece;
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new CancellationException();
    }
    if (failed instanceof IOException e) throw e;
    throw new IllegalStateException("a part could not be read", failed);
  }

  private void read(Map<Part, Path> files, Function<List<Line>, String> rows) {
    try {
      for (Path file : files.values()) {
        List<Line> lines = new ArrayList<>();
        List<Mistake> mistakes = new ArrayList<>();
        try (InputStream in = new BufferedInputStream(Files.newInputStream(file))) {
          PartLines.read(
              in,
              line -> {
                lines.add(line);
                if (lines.size() == LINES_AT_ONCE) put(lines, rows, List.of(), false);
              },
              mistakes::add);
        }
        put(lines, rows, mistakes, true);
      }
    } catch (CancellationException e) {
      // nobody wants it any more
    } catch (IOException | RuntimeException e) {
      failed = e;
      pieces.clear();
      pieces.add(new Piece(List.of(), "[]", List.of(), true, true));
    }
  }

  private void put(
      List<Line> lines, Function<List<Line>, String> rows, List<Mistake> mistakes, boolean last) {
    List<Line> copy = List.copyOf(lines);
    lines.clear();
    try {
      pieces.put(new Piece(copy, copy.isEmpty() ? "[]" : rows.apply(copy), mistakes, last, false));
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new CancellationException();
    }
  }

  @Override
  public void close() {
    reader.interrupt();
  }
}
