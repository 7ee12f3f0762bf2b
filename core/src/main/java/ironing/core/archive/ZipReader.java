package ironing.core.archive;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import org.apache.commons.compress.archivers.zip.UnsupportedZipFeatureException;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipFile;

/** Zip as APPNOTE 6.3 describes it: zip64, data descriptors, names of old programs. */
final class ZipReader {
  private ZipReader() {}

  static void read(Path archive, Sink sink) throws IOException {
    try (ZipFile zip = ReadFailure.opening(null, () -> ZipFile.builder().setPath(archive).get())) {
      List<ZipArchiveEntry> entries = Collections.list(zip.getEntriesInPhysicalOrder());
      refuseOverlaps(entries, sink);
      sink.expect(entries.stream().mapToLong(e -> Math.max(0, e.getSize())).sum());
      for (ZipArchiveEntry e : entries) {
        String path = Sink.fromHere(nameOf(e));
        if (e.getGeneralPurposeBit().usesUTF8ForNames() && !isUtf8(e.getRawName()))
          throw sink.refused(path, "its name is marked as UTF-8 and is none");
        if (path.isEmpty()) continue;
        if (e.getGeneralPurposeBit().usesEncryption())
          throw ArchiveException.encrypted(sink.archive(), path);
        if (e.isDirectory() || path.endsWith("/")) {
          sink.folder(path);
          continue;
        }
        try (InputStream in = ReadFailure.opening(path, () -> open(zip, e, path, sink))) {
          if (e.isUnixSymlink()) sink.link(path, in);
          else if (isDevice(e)) throw sink.refused(path, "it is a device");
          else sink.file(path, in, e.getSize(), e.getCrc());
        }
      }
    }
  }

  private static InputStream open(ZipFile zip, ZipArchiveEntry e, String path, Sink sink)
      throws IOException {
    try {
      return zip.getInputStream(e);
    } catch (UnsupportedZipFeatureException unknown) {
      throw ArchiveException.notReadable(
          sink.archive(),
          "The entry “" + path + "” is packed by a method that Ironing does not read.",
          "Unpack it by hand and pack what it holds as a plain zip or 7z.",
          unknown);
    }
  }

  private static boolean isUtf8(byte[] raw) {
    if (raw == null) return true;
    try {
      StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(raw));
      return true;
    } catch (CharacterCodingException notUtf8) {
      return false;
    }
  }

  // the upper half of the external attributes is st_mode where Unix wrote them
  private static boolean isDevice(ZipArchiveEntry e) {
    int type = e.getUnixMode() & 0170000;
    return type != 0 && type != 0100000 && type != 0040000 && type != 0120000;
  }

  private static void refuseOverlaps(List<ZipArchiveEntry> entries, Sink sink) {
    List<ZipArchiveEntry> byOffset = new ArrayList<>(entries);
    byOffset.sort(Comparator.comparingLong(ZipArchiveEntry::getDataOffset));
    for (int i = 1; i < byOffset.size(); i++) {
      ZipArchiveEntry before = byOffset.get(i - 1), e = byOffset.get(i);
      if (before.getDataOffset() >= 0
          && before.getDataOffset() + before.getCompressedSize() > e.getDataOffset()) {
        throw sink.refused(nameOf(e), "it overlaps another entry");
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
}
