package ironing.core.archive;

import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarFile;

/**
 * A pack that a game reads in place: a zip or a tar, told by its first bytes. In a tar the later of
 * two files of one name counts, as for {@code tar}; links and devices are no files.
 *
 * <p>Cost: of a zip its list, of a tar one look at each of its headers. Threads: one at a time.
 */
public final class PackFile implements Closeable {
  /** The two containers of packs. */
  public enum Container {
    ZIP,
    TAR
  }

  /**
   * @param name as the pack has it, with slashes
   */
  public record Entry(String name, long sizeBytes) {}

  private final Path file;
  private final ZipFile zip;
  private final TarFile tar;
  private final Map<String, TarArchiveEntry> inTar = new LinkedHashMap<>();

  private PackFile(Path file, ZipFile zip, TarFile tar) {
    this.file = file;
    this.zip = zip;
    this.tar = tar;
  }

  /**
   * @throws IOException when it is neither, or cannot be read
   */
  public static PackFile open(Path file) throws IOException {
    if (isZip(file)) return new PackFile(file, new ZipFile(file.toFile()), null);
    TarFile tar;
    try {
      tar = new TarFile(file);
    } catch (IllegalArgumentException e) {
      throw new IOException(e.getMessage(), e);
    }
    PackFile pack = new PackFile(file, null, tar);
    for (TarArchiveEntry e : tar.getEntries()) {
      String name = e.getName().startsWith("./") ? e.getName().substring(2) : e.getName();
      if (e.isFile() && !e.isLink() && !e.isSymbolicLink()) {
        pack.inTar.remove(name);
        pack.inTar.put(name, e);
      }
    }
    // what is no tar at all has no headers that could be wrong
    if (pack.inTar.isEmpty() && Files.size(file) > 0 && tar.getEntries().isEmpty()) {
      boolean ends = isEmptyTar(file);
      if (!ends) {
        pack.close();
        throw new IOException("it is neither a zip nor a tar");
      }
    }
    return pack;
  }

  private static boolean isZip(Path file) throws IOException {
    byte[] first = first(file, 4);
    return first.length == 4 && first[0] == 'P' && first[1] == 'K';
  }

  // two blocks of nothing end a tar
  private static boolean isEmptyTar(Path file) throws IOException {
    for (byte b : first(file, 1024)) if (b != 0) return false;
    return true;
  }

  private static byte[] first(Path file, int bytes) throws IOException {
    try (InputStream in = Files.newInputStream(file)) {
      return in.readNBytes(bytes);
    }
  }

  public Container container() {
    return zip != null ? Container.ZIP : Container.TAR;
  }

  /** Its files, without folders. */
  public List<Entry> entries() {
    List<Entry> all = new ArrayList<>();
    if (zip == null) inTar.forEach((name, e) -> all.add(new Entry(name, e.getSize())));
    else
      for (ZipEntry e : Collections.list(zip.entries()))
        if (!e.isDirectory()) all.add(new Entry(e.getName(), e.getSize()));
    return all;
  }

  /**
   * @throws NoSuchFileException when it has no file of this name
   */
  public InputStream read(String name) throws IOException {
    if (zip == null) {
      TarArchiveEntry e = inTar.get(name);
      if (e != null) return tar.getInputStream(e);
    } else {
      ZipEntry e = zip.getEntry(name);
      if (e != null) return zip.getInputStream(e);
    }
    throw new NoSuchFileException(file + ": " + name);
  }

  /** The first bytes of a file in a pack. */
  public static byte[] read(Path pack, String name, int most) throws IOException {
    try (PackFile file = open(pack);
        InputStream in = file.read(name)) {
      return in.readNBytes(most);
    }
  }

  @Override
  public void close() throws IOException {
    if (zip != null) zip.close();
    else tar.close();
  }
}
