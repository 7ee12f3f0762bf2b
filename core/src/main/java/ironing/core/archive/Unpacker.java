package ironing.core.archive;

import ironing.core.path.GamePath;
import java.io.BufferedInputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.LongConsumer;
import java.util.zip.CRC32;
import org.apache.commons.compress.PasswordRequiredException;
import org.apache.commons.compress.archivers.sevenz.SevenZArchiveEntry;
import org.apache.commons.compress.archivers.sevenz.SevenZFile;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveInputStream;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipFile;
import org.apache.commons.compress.compressors.bzip2.BZip2CompressorInputStream;
import org.apache.commons.compress.compressors.gzip.GzipCompressorInputStream;
import org.apache.commons.compress.compressors.xz.XZCompressorInputStream;

/**
 * Unpacks one archive into an empty folder, hashing each file in the same pass.
 *
 * <p>Refused whole, with the entry named: a path or link that leaves the root, a device, a name
 * that is file and folder or stands twice, a wrong checksum or size, overlapping entries, an
 * encrypted entry, and whatever goes over the limits. The caller throws the folder away then.
 *
 * <p>Threads: one archive, one thread; several may run side by side. Cost: one pass over the bytes.
 */
public final class Unpacker {
  private static final long MEMORY_LIMIT_KIB = 200 * 1024;
  private static final int MAX_LINK_HOPS = 8;

  private final Path archive;
  private final String name;
  private final Path into;
  private final ArchiveLimits limits;
  private final LongConsumer progress;

  private final Map<String, Unpacked> files = new LinkedHashMap<>();
  private final Map<String, Boolean> isFolder = new HashMap<>();
  private final Map<String, String> links = new LinkedHashMap<>();
  private final byte[] buffer = new byte[64 * 1024];
  private long unpackedBytes;
  private long allowedBytes;

  /**
   * One file out of an archive.
   *
   * @param path relative to the archive's root
   * @param sha256 64 lower-case hexadecimal digits
   */
  public record Unpacked(String path, long sizeBytes, String sha256) {}

  private Unpacker(
      Path archive, String name, Path into, ArchiveLimits limits, LongConsumer progress) {
    this.archive = archive;
    this.name = name;
    this.into = into;
    this.limits = limits;
    this.progress = progress;
  }

  /**
   * @param name what to call the archive in messages
   * @param progress told the unpacked bytes so far; what it throws ends the work
   * @return the files in the archive's order
   * @throws ArchiveException when it is refused
   * @throws IOException when this machine's disk fails
   */
  public static List<Unpacked> unpack(
      Path archive, String name, Path into, ArchiveLimits limits, LongConsumer progress)
      throws IOException {
    Unpacker u = new Unpacker(archive, name, into, limits, progress);
    u.run();
    return List.copyOf(u.files.values());
  }

  private void run() throws IOException {
    long packed = Files.size(archive);
    allowedBytes = Math.max(limits.floorBytes(), saturatedProduct(packed, limits.ratio()));
    byte[] start = new byte[8];
    int got;
    try (InputStream in = Files.newInputStream(archive)) {
      got = in.readNBytes(start, 0, start.length);
    }
    if (got == 0) throw ArchiveException.broken(name, "It is empty.", null);
    String magic = HexFormat.of().formatHex(start, 0, got);
    try {
      if (magic.startsWith("504b0304") || magic.startsWith("504b0506")) zip();
      else if (magic.startsWith("377abcaf271c")) sevenZ();
      else if (magic.startsWith("1f8b")) tar(in -> new GzipCompressorInputStream(in, true));
      else if (magic.startsWith("fd377a585a00"))
        tar(in -> new XZCompressorInputStream(in, true, (int) MEMORY_LIMIT_KIB));
      else if (magic.startsWith("425a68")) tar(in -> new BZip2CompressorInputStream(in, true));
      else
        throw ArchiveException.notReadable(
            name,
            "It is not an archive that Ironing can read.",
            "Zip, 7z and tar.gz are read; pack its content as one of these.",
            null);
    } catch (ReadFailure e) {
      if (e.getCause() instanceof PasswordRequiredException) {
        throw ArchiveException.encrypted(name, e.entry);
      }
      throw ArchiveException.broken(
          name, "It is damaged or cut short" + e.where() + ".", e.getCause());
    }
    copyLinks();
  }

  // ---- zip

  private void zip() throws IOException {
    ZipFile zip;
    try {
      zip = ZipFile.builder().setPath(archive).get();
    } catch (IOException e) {
      throw new ReadFailure(null, e);
    }
    try (zip) {
      List<ZipArchiveEntry> entries = Collections.list(zip.getEntriesInPhysicalOrder());
      refuseOverlaps(entries);
      for (ZipArchiveEntry e : entries) {
        String path = nameOf(e);
        if (e.getGeneralPurposeBit().usesEncryption()) throw ArchiveException.encrypted(name, path);
        if (e.isDirectory() || path.endsWith("/")) {
          folder(path);
        } else if (e.isUnixSymlink()) {
          link(path, readAll(zip.getInputStream(e), path));
        } else {
          try (InputStream in = open(() -> zip.getInputStream(e), path)) {
            file(path, in, e.getSize(), e.getCrc());
          }
        }
      }
    }
  }

  private void refuseOverlaps(List<ZipArchiveEntry> entries) {
    List<ZipArchiveEntry> byOffset = new ArrayList<>(entries);
    byOffset.sort(Comparator.comparingLong(ZipArchiveEntry::getDataOffset));
    for (int i = 1; i < byOffset.size(); i++) {
      ZipArchiveEntry before = byOffset.get(i - 1), e = byOffset.get(i);
      if (before.getDataOffset() >= 0
          && before.getDataOffset() + before.getCompressedSize() > e.getDataOffset()) {
        throw ArchiveException.entry(name, nameOf(e), "it overlaps another entry");
      }
    }
  }

  // Names without the UTF-8 mark: UTF-8 where valid, else code page 437, which is what the format's
  // note says.
  private static String nameOf(ZipArchiveEntry e) {
    byte[] raw = e.getRawName();
    if (raw == null) return e.getName();
    String text;
    try {
      text = StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(raw)).toString();
    } catch (CharacterCodingException notUtf8) {
      text = new String(raw, Charset.forName("IBM437"));
    }
    return e.getPlatform() == ZipArchiveEntry.PLATFORM_FAT && text.indexOf('/') < 0
        ? text.replace('\\', '/')
        : text;
  }

  // ---- 7z

  private void sevenZ() throws IOException {
    SevenZFile file;
    try {
      file =
          SevenZFile.builder().setPath(archive).setMaxMemoryLimitKiB((int) MEMORY_LIMIT_KIB).get();
    } catch (PasswordRequiredException e) {
      throw ArchiveException.encrypted(name, "(its list of entries)");
    } catch (IOException | RuntimeException e) {
      throw new ReadFailure(null, e);
    }
    try (file) {
      SevenZArchiveEntry e;
      while ((e = nextSevenZ(file)) != null) {
        if (e.isAntiItem())
          throw ArchiveException.entry(name, e.getName(), "it asks for a deletion");
        boolean unixMode = e.getHasWindowsAttributes() && (e.getWindowsAttributes() & 0x8000) != 0;
        int type = unixMode ? (e.getWindowsAttributes() >>> 16) & 0170000 : 0;
        if (e.isDirectory()) folder(e.getName());
        else if (type == 0120000) link(e.getName(), readAll(sevenZBytes(file), e.getName()));
        else if (type != 0 && type != 0100000)
          throw ArchiveException.entry(name, e.getName(), "it is a device");
        else file(e.getName(), sevenZBytes(file), e.getSize(), -1);
      }
    }
  }

  private SevenZArchiveEntry nextSevenZ(SevenZFile file) {
    try {
      return file.getNextEntry();
    } catch (IOException | RuntimeException e) {
      throw new ReadFailure(null, e);
    }
  }

  private static InputStream sevenZBytes(SevenZFile file) {
    return new InputStream() {
      @Override
      public int read() throws IOException {
        return file.read();
      }

      @Override
      public int read(byte[] b, int off, int len) throws IOException {
        return file.read(b, off, len);
      }
    };
  }

  // ---- tar

  private interface Decoder {
    InputStream over(InputStream packed) throws IOException;
  }

  private void tar(Decoder decoder) throws IOException {
    try (InputStream packed = new BufferedInputStream(Files.newInputStream(archive));
        InputStream unpacked = open(() -> decoder.over(packed), null);
        TarArchiveInputStream tar = new TarArchiveInputStream(unpacked, "UTF-8")) {
      int seen = 0;
      for (TarArchiveEntry e = nextTar(tar); e != null; e = nextTar(tar)) {
        seen++;
        tarEntry(tar, e);
      }
      if (seen == 0) {
        throw ArchiveException.notReadable(
            name,
            "It is compressed, but holds no archive.",
            "Unpack it by hand and pack what it holds as a zip.",
            null);
      }
      // the compression's own checksum stands behind the last entry: read on, so that it is checked
      while (read(unpacked, null) >= 0) {}
    }
  }

  private void tarEntry(TarArchiveInputStream tar, TarArchiveEntry e) throws IOException {
    String path = e.getName().startsWith("./") ? e.getName().substring(2) : e.getName();
    if (path.isEmpty()) return;
    if (e.isDirectory()) folder(path);
    else if (e.isSymbolicLink()) link(path, e.getLinkName());
    else if (e.isLink()) hardLink(path, e.getLinkName());
    else if (!e.isFile() || e.isCharacterDevice() || e.isBlockDevice() || e.isFIFO()) {
      throw ArchiveException.entry(name, path, "it is a device");
    } else file(path, tar, e.getSize(), -1);
  }

  private TarArchiveEntry nextTar(TarArchiveInputStream tar) {
    try {
      return tar.getNextEntry();
    } catch (IOException | IllegalArgumentException e) {
      throw new ReadFailure(null, e);
    }
  }

  // ---- what all formats share

  private void folder(String path) {
    String clean = path.replaceAll("/+$", "");
    if (clean.isEmpty() || clean.equals(".")) return;
    check(clean);
    claim(clean, true);
  }

  private void file(String path, InputStream in, long statedSize, long statedCrc)
      throws IOException {
    check(path);
    claim(path, false);
    Path place = GamePath.resolve(into, path);
    Files.createDirectories(place.getParent());
    MessageDigest sha = ContentHash.digest();
    CRC32 crc = new CRC32();
    long size = 0;
    try (OutputStream out = Files.newOutputStream(place, StandardOpenOption.CREATE_NEW)) {
      int n;
      while ((n = read(in, path)) >= 0) {
        size += n;
        unfold(path, n);
        sha.update(buffer, 0, n);
        crc.update(buffer, 0, n);
        out.write(buffer, 0, n);
      }
    }
    if (statedSize >= 0 && size != statedSize)
      throw ArchiveException.entry(
          name, path, "it holds " + size + " bytes and not the " + statedSize + " it states");
    if (statedCrc >= 0 && crc.getValue() != statedCrc)
      throw ArchiveException.entry(name, path, "its checksum is wrong");
    files.put(path, new Unpacked(path, size, HexFormat.of().formatHex(sha.digest())));
  }

  /** Notes that the archive has grown by so many bytes; links count, since each becomes a copy. */
  private void unfold(String path, long bytes) {
    unpackedBytes += bytes;
    if (unpackedBytes > allowedBytes) {
      String limit = limits.ratio() + " times its size and " + (limits.floorBytes() >> 20) + " MiB";
      throw ArchiveException.entry(name, path, "the archive unfolds to more than " + limit);
    }
    progress.accept(unpackedBytes);
  }

  private void link(String path, String target) {
    String folder = GamePath.folder(path);
    hardLink(path, folder.isEmpty() ? target : folder + "/" + target);
  }

  private void hardLink(String path, String target) {
    check(path);
    claim(path, false);
    List<String> steps = new ArrayList<>();
    for (String step : target.split("/", -1)) {
      if (step.isEmpty() && steps.isEmpty())
        throw ArchiveException.entry(name, path, "it links outside, to “" + target + "”");
      if (step.isEmpty() || step.equals(".")) continue;
      if (!step.equals("..")) steps.add(step);
      else if (steps.isEmpty())
        throw ArchiveException.entry(name, path, "it links outside, to “" + target + "”");
      else steps.remove(steps.size() - 1);
    }
    links.put(path, String.join("/", steps));
  }

  // A link becomes a copy: the library and the game folder hold plain files only.
  private void copyLinks() throws IOException {
    for (String path : links.keySet()) {
      String target = path;
      for (int hop = 0; hop < MAX_LINK_HOPS && links.containsKey(target); hop++)
        target = links.get(target);
      Unpacked original = files.get(target);
      if (original == null)
        throw ArchiveException.entry(
            name, path, "it links to “" + target + "”, which is no file of the archive");
      unfold(path, original.sizeBytes());
      Path place = GamePath.resolve(into, path);
      Files.createDirectories(place.getParent());
      Files.copy(GamePath.resolve(into, target), place);
      files.put(path, new Unpacked(path, original.sizeBytes(), original.sha256()));
    }
  }

  private void check(String path) {
    String why = GamePath.whyUnsafe(path);
    if (why != null) throw ArchiveException.entry(name, path, why);
    if (isFolder.size() > limits.entries())
      throw ArchiveException.entry(
          name, path, "there are more than " + limits.entries() + " entries");
  }

  private void claim(String path, boolean folder) {
    Boolean earlier = isFolder.put(path, folder);
    if (earlier != null && earlier != folder)
      throw ArchiveException.entry(name, path, "it is both a file and a folder");
    if (earlier != null && !folder)
      throw ArchiveException.entry(name, path, "it stands in the archive twice");
    String parent = GamePath.folder(path);
    if (!parent.isEmpty() && !Boolean.TRUE.equals(isFolder.get(parent))) claim(parent, true);
  }

  private int read(InputStream in, String path) {
    try {
      return in.read(buffer);
    } catch (IOException | RuntimeException e) {
      throw new ReadFailure(path, e);
    }
  }

  private interface Opening {
    InputStream open() throws IOException;
  }

  private static InputStream open(Opening opening, String path) {
    try {
      return opening.open();
    } catch (IOException | RuntimeException e) {
      throw new ReadFailure(path, e);
    }
  }

  private String readAll(InputStream in, String path) {
    try {
      byte[] bytes = in.readNBytes(4097);
      if (bytes.length > 4096)
        throw ArchiveException.entry(name, path, "its link is longer than any path");
      return new String(bytes, StandardCharsets.UTF_8);
    } catch (IOException e) {
      throw new ReadFailure(path, e);
    }
  }

  private static long saturatedProduct(long a, long b) {
    return a > Long.MAX_VALUE / b ? Long.MAX_VALUE : a * b;
  }

  /** Reading the archive failed, as opposed to writing to this machine's disk. */
  private static final class ReadFailure extends RuntimeException {
    private final String entry;

    ReadFailure(String entry, Throwable cause) {
      super(cause);
      this.entry = entry;
    }

    String where() {
      String what = getCause() instanceof EOFException ? ": it ends too early" : "";
      return (entry == null ? "" : " at the entry “" + entry + "”") + what;
    }
  }
}
