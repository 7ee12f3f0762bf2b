package ironing.core.workspace;

import ironing.core.plugin.RecordTable;
import ironing.core.records.RecordIndex;
import java.io.EOFException;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;

/**
 * A plugin that is on and decodes. Two are equal when the game reads the same.
 *
 * @param mend whether it is a patch: it takes no side
 */
public record ReadPlugin(String name, String sha256, boolean mend, RecordTable table, Path file) {
  RecordIndex.Source source() {
    return new RecordIndex.Source(table, bytesOf(file), mend);
  }

  private static RecordTable.Bytes bytesOf(Path file) {
    return (offset, length) -> {
      ByteBuffer stretch = ByteBuffer.allocate(length);
      try (FileChannel in = FileChannel.open(file, StandardOpenOption.READ)) {
        while (stretch.hasRemaining())
          if (in.read(stretch, offset + stretch.position()) < 0)
            throw new EOFException(file.getFileName() + " has become shorter");
      }
      return stretch.array();
    };
  }

  /** Its bytes, read once and for all. */
  RecordTable.Bytes whole() {
    try {
      return RecordTable.Bytes.of(Files.readAllBytes(file));
    } catch (IOException e) {
      throw RecordIndex.unreadable(name, e);
    }
  }

  @Override
  public boolean equals(Object o) {
    return o instanceof ReadPlugin a
        && a.name.equals(name)
        && a.sha256.equals(sha256)
        && a.mend == mend
        && a.file.equals(file);
  }

  @Override
  public int hashCode() {
    return sha256.hashCode();
  }
}
