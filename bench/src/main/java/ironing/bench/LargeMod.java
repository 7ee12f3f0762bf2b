package ironing.bench;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/**
 * One archive of very many small files, for the page to open.
 *
 * <p>Usage: {@code LargeMod FILE FILES}.
 */
public final class LargeMod {
  private LargeMod() {}

  public static void main(String[] args) throws IOException {
    int files = Integer.parseInt(args[1]);
    try (OutputStream out = Files.newOutputStream(Path.of(args[0]));
        ZipOutputStream zip = new ZipOutputStream(out)) {
      for (int i = 0; i < files; i++) {
        zip.putNextEntry(
            new ZipEntry(
                "textures/quarter" + i % 30 + "/street" + i % 600 + "/house" + i + ".png"));
        zip.write(("house " + i).getBytes(StandardCharsets.UTF_8));
        zip.closeEntry();
      }
    }
  }
}
