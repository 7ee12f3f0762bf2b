package ironing.core.testkit;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.zip.GZIPOutputStream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.apache.commons.compress.archivers.sevenz.SevenZArchiveEntry;
import org.apache.commons.compress.archivers.sevenz.SevenZOutputFile;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveOutputStream;
import org.apache.commons.compress.archivers.tar.TarConstants;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipArchiveOutputStream;

/** Archives for tests, sound ones and others, as bytes. */
public final class Archives {
  private Archives() {}

  /** Entry names as they are given, even where no honest program would write them. */
  public static byte[] zip(Map<String, String> files) {
    Map<String, byte[]> bytes = new LinkedHashMap<>();
    files.forEach((name, text) -> bytes.put(name, bytes(text)));
    return zipOf(bytes);
  }

  public static byte[] zipOf(Map<String, byte[]> files) {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (ZipOutputStream zip = new ZipOutputStream(out, StandardCharsets.UTF_8)) {
      for (Map.Entry<String, byte[]> f : files.entrySet()) {
        zip.putNextEntry(new ZipEntry(f.getKey()));
        zip.write(f.getValue());
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return out.toByteArray();
  }

  /** One symbolic link beside one file. */
  public static byte[] zipWithLink(String link, String target) {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (ZipArchiveOutputStream zip = new ZipArchiveOutputStream(out)) {
      put(zip, new ZipArchiveEntry("real.txt"), "real");
      putLink(zip, link, target);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return out.toByteArray();
  }

  /** One file and links to it; each link unfolds to a copy. */
  public static byte[] zipWithLinks(int fileSizeBytes, int links) {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (ZipArchiveOutputStream zip = new ZipArchiveOutputStream(out)) {
      put(zip, new ZipArchiveEntry("real.txt"), "0".repeat(fileSizeBytes));
      for (int i = 0; i < links; i++) putLink(zip, "link" + i, "real.txt");
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return out.toByteArray();
  }

  private static void putLink(ZipArchiveOutputStream zip, String link, String target)
      throws IOException {
    ZipArchiveEntry e = new ZipArchiveEntry(link);
    e.setUnixMode(0120777);
    put(zip, e, target);
  }

  /** Names in code page 437 without the UTF-8 mark, as old programs write them. */
  public static byte[] zipInCodePage437(String name, String content) {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (ZipArchiveOutputStream zip = new ZipArchiveOutputStream(out)) {
      zip.setEncoding("IBM437");
      zip.setUseLanguageEncodingFlag(false);
      put(zip, new ZipArchiveEntry(name), content);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return out.toByteArray();
  }

  private static void put(ZipArchiveOutputStream zip, ZipArchiveEntry e, String content)
      throws IOException {
    zip.putArchiveEntry(e);
    zip.write(bytes(content));
    zip.closeArchiveEntry();
  }

  /**
   * @param password null for none
   */
  public static byte[] sevenZ(Map<String, String> files, String password) {
    try {
      Path temp = Files.createTempFile("test", ".7z");
      try (SevenZOutputFile out =
          password == null
              ? new SevenZOutputFile(temp.toFile())
              : new SevenZOutputFile(temp.toFile(), password.toCharArray())) {
        for (Map.Entry<String, String> f : files.entrySet()) {
          SevenZArchiveEntry e = new SevenZArchiveEntry();
          e.setName(f.getKey());
          out.putArchiveEntry(e);
          out.write(bytes(f.getValue()));
          out.closeArchiveEntry();
        }
      }
      byte[] all = Files.readAllBytes(temp);
      Files.delete(temp);
      return all;
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** A name that ends in a slash is a folder, as the format has it, and gets no content. */
  public static byte[] tarGz(Map<String, String> files) {
    return tarGz(
        tar -> {
          for (Map.Entry<String, String> f : files.entrySet()) {
            TarArchiveEntry e = new TarArchiveEntry(f.getKey(), true);
            byte[] content = e.isDirectory() ? new byte[0] : bytes(f.getValue());
            e.setSize(content.length);
            tar.putArchiveEntry(e);
            tar.write(content);
            tar.closeArchiveEntry();
          }
        });
  }

  /** One entry of a kind other than a file, such as {@link TarConstants#LF_CHR}, after one file. */
  public static byte[] tarGzWith(byte kind, String name, String linkTo) {
    return tarGz(
        tar -> {
          TarArchiveEntry file = new TarArchiveEntry("real.txt");
          file.setSize(4);
          tar.putArchiveEntry(file);
          tar.write(bytes("real"));
          tar.closeArchiveEntry();
          TarArchiveEntry e = new TarArchiveEntry(name, kind, true);
          if (linkTo != null) e.setLinkName(linkTo);
          tar.putArchiveEntry(e);
          tar.closeArchiveEntry();
        });
  }

  private interface Filling {
    void into(TarArchiveOutputStream tar) throws IOException;
  }

  private static byte[] tarGz(Filling filling) {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (OutputStream gz = new GZIPOutputStream(out);
        TarArchiveOutputStream tar = new TarArchiveOutputStream(gz, "UTF-8")) {
      tar.setLongFileMode(TarArchiveOutputStream.LONGFILE_POSIX);
      filling.into(tar);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return out.toByteArray();
  }

  public static byte[] bytes(String s) {
    return s.getBytes(StandardCharsets.UTF_8);
  }
}
