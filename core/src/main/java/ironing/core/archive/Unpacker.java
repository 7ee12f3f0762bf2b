package ironing.core.archive;

import com.github.luben.zstd.ZstdInputStream;
import ironing.core.disk.FolderTree;
import ironing.core.path.GamePath;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.regex.Pattern;
import org.apache.commons.compress.PasswordRequiredException;
import org.apache.commons.compress.compressors.bzip2.BZip2CompressorInputStream;
import org.apache.commons.compress.compressors.gzip.GzipCompressorInputStream;
import org.tukaani.xz.MemoryLimitException;
import org.tukaani.xz.XZInputStream;

/**
 * Unpacks one archive into an empty folder, hashing each file in the same pass. An archive inside
 * it becomes a folder of its name; one inside that stays a file.
 *
 * <p>Refused whole, with the entry named: a path or link that leaves the root, a device, a name
 * that is file and folder or stands twice, a wrong checksum or size, overlapping entries, an
 * encrypted entry, and whatever goes over the limits. The caller throws the folder away then.
 *
 * <p>Threads: one archive, one thread; several may run side by side and share {@link
 * DecoderMemory}. Cost: one pass over the bytes.
 */
public final class Unpacker {
  private static final int SMALL_KIB = 8 * 1024;
  // the largest window that a zstd stream may ask of every decoder is 8 MiB; this one allows 128
  private static final int ZSTD_KIB = 132 * 1024;
  private static final int ZSTD_WINDOW_LOG = 27;
  private static final Pattern ARCHIVE_NAME =
      Pattern.compile("(?i).*\\.(zip|7z|tar|tgz|tar\\.(gz|xz|bz2|zst))");

  private final ArchiveLimits limits;
  private final DecoderMemory memory;
  private final Optional<Path> sevenZip;

  /**
   * @param sevenZip the Debian package's 7zz, where it is installed
   */
  public Unpacker(ArchiveLimits limits, DecoderMemory memory, Optional<Path> sevenZip) {
    this.limits = limits;
    this.memory = memory;
    this.sevenZip = sevenZip;
  }

  /** With the limits that hold when nobody says otherwise, and Ironing's own readers alone. */
  public static Unpacker plain() {
    return new Unpacker(
        ArchiveLimits.DEFAULT, new DecoderMemory(DecoderMemory.DEFAULT_KIB), Optional.empty());
  }

  /**
   * One file out of an archive.
   *
   * @param path relative to the archive's root
   * @param sha256 64 lower-case hexadecimal digits
   */
  public record Unpacked(String path, long sizeBytes, String sha256) {}

  /**
   * Told how far it is, in bytes; {@code total} 0 means that nobody can tell. What it throws ends
   * the work.
   */
  public interface Progress {
    void at(long done, long total);
  }

  /**
   * @param name what to call the archive in messages
   * @param isNested which files, by path, are archives to be opened in their turn
   * @return the files in the archive's order
   * @throws ArchiveException when it is refused
   * @throws IOException when this machine's disk fails
   */
  public List<Unpacked> unpack(
      Path archive, String name, Path into, Predicate<String> isNested, Progress progress)
      throws IOException {
    try (WriteBehind writer = new WriteBehind()) {
      Sink sink = new Sink(name, into, limits, Files.size(archive), writer, progress);
      read(archive, sink);
      sink.copyLinks();
      for (Unpacked f : sink.files()) {
        if (isArchiveName(f.path()) && isNested.test(f.path())) nested(f, sink);
      }
      return sink.files();
    }
  }

  /** Whether a file's name is that of an archive that is read here. */
  public static boolean isArchiveName(String path) {
    return ARCHIVE_NAME.matcher(GamePath.name(path)).matches();
  }

  private void nested(Unpacked file, Sink sink) throws IOException {
    Path place = GamePath.resolve(sink.into(), file.path());
    Path aside = sink.into().resolveSibling(sink.into().getFileName() + ".nested");
    Files.move(place, aside);
    try {
      sink.openNested(file.path());
      try {
        read(aside, sink);
        sink.copyLinks();
        sink.closeNested();
      } catch (ArchiveException e) {
        // one that cannot be read stays the file that it is; one that means harm refuses the whole
        if (e.isHarm()) throw e;
        sink.settle();
        FolderTree.remove(place);
        sink.dropNested(file);
        Files.move(aside, place);
      }
    } finally {
      Files.deleteIfExists(aside);
    }
  }

  private void read(Path archive, Sink sink) throws IOException {
    byte[] start = new byte[512];
    int got;
    try (InputStream in = Files.newInputStream(archive)) {
      got = in.readNBytes(start, 0, start.length);
    }
    if (got == 0) throw ArchiveException.broken(sink.archive(), "It is empty.", null);
    String magic = HexFormat.of().formatHex(start, 0, Math.min(got, 8));
    try {
      if (magic.startsWith("504b0304") || magic.startsWith("504b0506")) zip(archive, sink);
      else if (magic.startsWith("377abcaf271c")) SevenZReader.read(archive, sink, memory, sevenZip);
      else if (magic.startsWith("1f8b"))
        tar(
            archive,
            sink,
            SMALL_KIB,
            in ->
                GzipCompressorInputStream.builder()
                    .setInputStream(in)
                    .setDecompressConcatenated(true)
                    .get());
      else if (magic.startsWith("fd377a585a00")) xz(archive, sink);
      else if (magic.startsWith("425a68"))
        tar(archive, sink, SMALL_KIB, in -> new BZip2CompressorInputStream(in, true));
      else if (magic.startsWith("28b52ffd"))
        tar(
            archive,
            sink,
            ZSTD_KIB,
            in -> new ZstdInputStream(in).setLongMax(ZSTD_WINDOW_LOG).setContinuous(false));
      else if (isTar(start, got)) tar(archive, sink, SMALL_KIB, in -> in);
      else throw unknown(sink.archive(), magic);
    } catch (ReadFailure e) {
      if (e.getCause() instanceof ArchiveException known) throw known;
      if (e.getCause() instanceof PasswordRequiredException)
        throw ArchiveException.encrypted(sink.archive(), e.entry());
      throw ArchiveException.broken(
          sink.archive(), "It is damaged or cut short" + e.where() + ".", e.getCause());
    }
  }

  private void zip(Path archive, Sink sink) throws IOException {
    memory.during(SMALL_KIB, () -> ZipReader.read(archive, sink));
  }

  private void tar(Path archive, Sink sink, int kib, TarReader.Decoder decoder) throws IOException {
    memory.during(kib, () -> TarReader.read(archive, sink, decoder));
  }

  /** The format says in its first block how much memory it takes: ask with none, then take it. */
  private void xz(Path archive, Sink sink) throws IOException {
    int need = SMALL_KIB;
    try (InputStream in = Files.newInputStream(archive);
        XZInputStream probe = new XZInputStream(in, 0)) {
      probe.read();
    } catch (MemoryLimitException e) {
      need = e.getMemoryNeeded();
    } catch (IOException damaged) {
      // told below, by the reader that says where
    }
    if (need > memory.totalKib()) {
      throw ArchiveException.notReadable(
          sink.archive(),
          "Unpacking it takes "
              + (need >> 10)
              + " MiB of memory; "
              + (memory.totalKib() >> 10)
              + " MiB are set aside for that.",
          "Unpack it by hand and pack what it holds as a zip.",
          null);
    }
    int limit = need;
    tar(archive, sink, need, in -> new XZInputStream(in, limit));
  }

  // POSIX.1-1988 ustar and GNU tar both have this word at offset 257
  private static boolean isTar(byte[] start, int got) {
    return got == 512 && new String(start, 257, 5, StandardCharsets.US_ASCII).equals("ustar");
  }

  private static final Map<String, String> OTHERS =
      Map.of(
          "526172211a07", "a RAR archive",
          "4d534346", "a cabinet file",
          "60ea", "an ARJ archive",
          "4d5a", "a program, perhaps an installer",
          "25504446", "a PDF document",
          "89504e47", "an image");

  private static ArchiveException unknown(String archive, String magic) {
    String what =
        OTHERS.entrySet().stream()
            .filter(o -> magic.startsWith(o.getKey()))
            .map(Map.Entry::getValue)
            .findFirst()
            .orElse(
                magic.toLowerCase(Locale.ROOT).startsWith("3c")
                    ? "a page of a web site, not what it should have linked to"
                    : "of a kind that is not known here");
    return ArchiveException.notReadable(
        archive,
        "It is not an archive that Ironing can read: it is " + what + ".",
        "Zip, 7z and tar (plain, or with gzip, xz, bzip2 or zstd) are read. Unpack it by hand and"
            + " bring in the folder, or pack that as one of these.",
        null);
  }
}
