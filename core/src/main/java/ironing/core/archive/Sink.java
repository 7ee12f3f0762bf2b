package ironing.core.archive;

import ironing.core.archive.Unpacker.Unpacked;
import ironing.core.path.GamePath;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.CRC32;

/**
 * Where the readers of all formats put what they read: the one place that decides whether an entry
 * is acceptable, and the only one that writes. Serves one archive and what is nested in it, so that
 * the limits hold for both together.
 */
final class Sink {
  private static final int MAX_LINK_HOPS = 8;
  // up to here a file is written behind the decoder's back; a larger one as it comes
  private static final int SMALL_BYTES = 1 << 20;
  private static final int LONGEST_LINK_BYTES = 4096;

  private final String archive;
  private final Path into;
  private final ArchiveLimits limits;
  private final long allowedBytes;
  private final Unpacker.Progress progress;

  private final Map<String, Unpacked> files = new LinkedHashMap<>();
  private final Map<String, Boolean> isFolder = new HashMap<>();
  private final Map<String, String> links = new LinkedHashMap<>();
  private final WriteBehind writer;
  private final byte[] buffer = new byte[64 * 1024];
  private long unpackedBytes;
  private long totalBytes;
  // below which folder of `into` a nested archive's entries go; empty for the archive itself
  private String below = "";

  Sink(
      String archive,
      Path into,
      ArchiveLimits limits,
      long packedBytes,
      WriteBehind writer,
      Unpacker.Progress progress) {
    this.archive = archive;
    this.into = into;
    this.limits = limits;
    this.writer = writer;
    this.allowedBytes =
        Math.max(limits.floorBytes(), saturatedProduct(packedBytes, limits.ratio()));
    this.progress = progress;
  }

  String archive() {
    return archive;
  }

  Path into() {
    return into;
  }

  List<Unpacked> files() {
    return List.copyOf(files.values());
  }

  /** Tells how much all will be, where the format's own list says so. */
  void expect(long bytes) {
    totalBytes = bytes;
  }

  /** Reports how far a format that has no list has read, in packed bytes. */
  void readSoFar(long packed, long of) {
    progress.at(packed, of);
  }

  /** A name without the steps at its beginning that say “here”, as some programs write them. */
  static String fromHere(String name) {
    String path = name;
    while (path.startsWith("./")) path = path.substring(2).replaceFirst("^/+", "");
    return path;
  }

  void folder(String path) {
    String clean = path.replaceAll("/+$", "");
    if (clean.isEmpty() || clean.equals(".")) return;
    check(full(clean));
    claim(full(clean), true);
  }

  /**
   * Writes one file.
   *
   * @param statedSize as the archive's list has it, -1 when it does not say
   * @param statedCrc CRC-32 (ISO/IEC 8802-3), -1 when it does not say
   */
  void file(String entry, InputStream in, long statedSize, long statedCrc) throws IOException {
    String path = full(entry);
    check(path);
    claim(path, false);
    MessageDigest sha = ContentHash.digest();
    CRC32 crc = new CRC32();
    boolean small = statedSize >= 0 && statedSize <= SMALL_BYTES;
    long size =
        small
            ? smallFile(path, in, new byte[(int) statedSize], sha, crc)
            : largeFile(path, in, sha, crc);
    if (statedSize >= 0 && size != statedSize)
      throw refused(path, "it holds " + size + " bytes and not the " + statedSize + " it states");
    if (statedCrc >= 0 && crc.getValue() != statedCrc) throw refused(path, "its checksum is wrong");
    files.put(path, new Unpacked(path, size, HexFormat.of().formatHex(sha.digest())));
  }

  private long smallFile(String path, InputStream in, byte[] content, MessageDigest sha, CRC32 crc)
      throws IOException {
    int size = 0;
    for (int n = read(in, path); n >= 0; n = read(in, path)) {
      unfold(path, n);
      // more than it states is refused by whoever called, whatever it is
      if (size + n > content.length) return (long) size + n;
      System.arraycopy(buffer, 0, content, size, n);
      size += n;
    }
    sha.update(content, 0, size);
    crc.update(content, 0, size);
    if (size == content.length) writer.write(GamePath.resolve(into, path), content);
    return size;
  }

  private long largeFile(String path, InputStream in, MessageDigest sha, CRC32 crc)
      throws IOException {
    Path place = GamePath.resolve(into, path);
    Files.createDirectories(place.getParent());
    long size = 0;
    try (OutputStream out = Files.newOutputStream(place, StandardOpenOption.CREATE_NEW)) {
      for (int n = read(in, path); n >= 0; n = read(in, path)) {
        size += n;
        unfold(path, n);
        sha.update(buffer, 0, n);
        crc.update(buffer, 0, n);
        out.write(buffer, 0, n);
      }
    }
    return size;
  }

  /** A symbolic link; its target counts from its own folder. */
  void link(String path, InputStream target) {
    String folder = GamePath.folder(path);
    String to = linkText(target, path);
    hardLink(path, folder.isEmpty() || to.startsWith("/") ? to : folder + "/" + to);
  }

  void link(String path, String target) {
    String folder = GamePath.folder(path);
    hardLink(path, folder.isEmpty() || target.startsWith("/") ? target : folder + "/" + target);
  }

  /** A link whose target counts from the archive's top. */
  void hardLink(String entry, String target) {
    String path = full(entry);
    check(path);
    claim(path, false);
    if (target.startsWith("/")) throw outside(path, target);
    List<String> steps = new ArrayList<>();
    for (String step : target.split("/", -1)) {
      if (step.isEmpty() || step.equals(".")) continue;
      if (!step.equals("..")) steps.add(step);
      else if (steps.isEmpty()) throw outside(path, target);
      else steps.remove(steps.size() - 1);
    }
    links.put(path, full(String.join("/", steps)));
  }

  /** A link becomes a copy: the library and the game folder hold plain files only. */
  void copyLinks() throws IOException {
    writer.finish();
    for (String path : links.keySet()) {
      String target = path;
      for (int hop = 0; hop < MAX_LINK_HOPS && links.containsKey(target); hop++)
        target = links.get(target);
      Unpacked original = files.get(target);
      if (original == null)
        throw refused(path, "it links to “" + target + "”, which is no file of the archive");
      unfold(path, original.sizeBytes());
      Path place = GamePath.resolve(into, path);
      Files.createDirectories(place.getParent());
      Files.copy(GamePath.resolve(into, target), place);
      files.put(path, new Unpacked(path, original.sizeBytes(), original.sha256()));
    }
    links.clear();
  }

  /** Waits until all that was taken is on the disk. */
  void settle() throws IOException {
    writer.finish();
  }

  /** From here on entries go below a folder that takes the place of a file: a nested archive. */
  void openNested(String path) {
    files.remove(path);
    isFolder.put(path, true);
    below = path + "/";
  }

  void closeNested() {
    below = "";
  }

  /** Takes back what a nested archive has brought, so that it can stay a plain file. */
  void dropNested(Unpacked file) {
    closeNested();
    String prefix = file.path() + "/";
    files.keySet().removeIf(p -> p.startsWith(prefix));
    isFolder.keySet().removeIf(p -> p.startsWith(prefix));
    links.keySet().removeIf(p -> p.startsWith(prefix));
    isFolder.put(file.path(), false);
    files.put(file.path(), file);
  }

  /** Forgets everything, for a second try at the same archive. */
  void restart() throws IOException {
    writer.finish();
    for (Unpacked f : files.values()) Files.deleteIfExists(GamePath.resolve(into, f.path()));
    // the file that was being written is not among them
    for (Map.Entry<String, Boolean> e : isFolder.entrySet())
      if (!e.getValue()) Files.deleteIfExists(GamePath.resolve(into, e.getKey()));
    files.clear();
    isFolder.clear();
    links.clear();
    unpackedBytes = 0;
  }

  ArchiveException refused(String entry, String reason) {
    return ArchiveException.entry(archive, entry, reason);
  }

  private String full(String entry) {
    return below + entry;
  }

  private ArchiveException outside(String path, String target) {
    return refused(path, "it links outside, to “" + target + "”");
  }

  private String linkText(InputStream in, String path) {
    try {
      byte[] bytes = in.readNBytes(LONGEST_LINK_BYTES + 1);
      if (bytes.length > LONGEST_LINK_BYTES)
        throw refused(path, "its link is longer than any path");
      return new String(bytes, StandardCharsets.UTF_8);
    } catch (IOException e) {
      throw new ReadFailure(path, e);
    }
  }

  /** Notes that the archive has grown by so many bytes; links count, since each becomes a copy. */
  private void unfold(String path, long bytes) {
    unpackedBytes += bytes;
    if (unpackedBytes > allowedBytes) {
      String limit = limits.ratio() + " times its size and " + (limits.floorBytes() >> 20) + " MiB";
      throw refused(path, "the archive unfolds to more than " + limit);
    }
    if (totalBytes >= 0) progress.at(unpackedBytes, totalBytes);
  }

  private void check(String path) {
    String why = GamePath.whyUnsafe(path);
    if (why != null) throw refused(path, why);
    if (isFolder.size() > limits.entries())
      throw refused(path, "there are more than " + limits.entries() + " entries");
  }

  private void claim(String path, boolean folder) {
    Boolean earlier = isFolder.put(path, folder);
    if (earlier != null && earlier != folder) throw refused(path, "it is both a file and a folder");
    if (earlier != null && !folder) throw refused(path, "it stands in the archive twice");
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

  private static long saturatedProduct(long a, long b) {
    return a > Long.MAX_VALUE / b ? Long.MAX_VALUE : a * b;
  }
}
