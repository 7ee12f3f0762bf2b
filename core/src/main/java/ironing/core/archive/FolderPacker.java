package ironing.core.archive;

import ironing.core.path.GamePath;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.time.LocalDateTime;
import java.util.Map;
import java.util.TreeMap;
import java.util.zip.Deflater;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/**
 * Makes an archive of a plain folder, so that it is kept and installed like any other. The same
 * files give the same bytes, wherever and whenever they lie.
 */
public final class FolderPacker {
  // zip cannot say earlier; a fixed moment keeps the bytes the same
  private static final LocalDateTime MOMENT = LocalDateTime.of(1980, 1, 1, 0, 0);

  private FolderPacker() {}

  /**
   * @param out left open
   * @throws ArchiveException naming a link or a device: what it leads to may be anybody's
   */
  public static void pack(Path folder, OutputStream out) throws IOException {
    String name = String.valueOf(folder.getFileName());
    Map<String, Path> files = new TreeMap<>();
    Files.walkFileTree(
        folder,
        new SimpleFileVisitor<>() {
          @Override
          public FileVisitResult visitFile(Path file, BasicFileAttributes attributes) {
            String path = GamePath.of(folder.relativize(file));
            if (!attributes.isRegularFile())
              throw ArchiveException.entry(name, path, "it is a link or a device");
            String why = GamePath.whyUnsafe(path);
            if (why != null) throw ArchiveException.entry(name, path, why);
            files.put(path, file);
            return FileVisitResult.CONTINUE;
          }
        });
    ZipOutputStream zip = new ZipOutputStream(out, StandardCharsets.UTF_8);
    zip.setLevel(Deflater.BEST_SPEED);
    for (Map.Entry<String, Path> f : files.entrySet()) {
      ZipEntry entry = new ZipEntry(f.getKey());
      entry.setTimeLocal(MOMENT);
      zip.putNextEntry(entry);
      Files.copy(f.getValue(), zip);
      zip.closeEntry();
    }
    zip.finish();
  }
}
