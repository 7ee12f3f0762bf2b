package ironing.server.platform;

import ironing.core.IroningException;
import ironing.core.path.GamePath;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.Map;
import org.springframework.core.io.ByteArrayResource;
import org.springframework.core.io.FileSystemResource;
import org.springframework.core.io.Resource;
import org.springframework.http.ContentDisposition;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;

/**
 * Files of strangers as answers. Only what a browser draws and never runs gets a type of its own;
 * whatever else is a download, and everything is shut in by its own policy.
 */
public final class Served {
  private static final Map<String, MediaType> IMAGES =
      Map.of(
          "png", MediaType.IMAGE_PNG,
          "jpg", MediaType.IMAGE_JPEG,
          "jpeg", MediaType.IMAGE_JPEG,
          "gif", MediaType.IMAGE_GIF,
          "webp", MediaType.parseMediaType("image/webp"),
          "bmp", MediaType.parseMediaType("image/bmp"),
          "svg", MediaType.parseMediaType("image/svg+xml"));

  private Served() {}

  public static ResponseEntity<Resource> file(String path, Path file, boolean download) {
    if (!Files.isRegularFile(file)) {
      throw IroningException.of(
          "not-found", path, "There is no such file.", "Choose one from the list.");
    }
    return answer(GamePath.name(path), new FileSystemResource(file), download);
  }

  public static ResponseEntity<Resource> bytes(String name, byte[] bytes, boolean download) {
    return answer(name, new ByteArrayResource(bytes), download);
  }

  /** Text of our own to take away. */
  public static ResponseEntity<String> asFile(String name, String type, String text) {
    return ResponseEntity.ok()
        .contentType(MediaType.parseMediaType(type))
        .header(
            "Content-Disposition",
            ContentDisposition.attachment()
                .filename(name, StandardCharsets.UTF_8)
                .build()
                .toString())
        .body(text);
  }

  private static ResponseEntity<Resource> answer(String name, Resource body, boolean download) {
    String ending = name.substring(name.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT);
    MediaType type = IMAGES.getOrDefault(ending, MediaType.APPLICATION_OCTET_STREAM);
    boolean shown = !download && IMAGES.containsKey(ending);
    return ResponseEntity.ok()
        .contentType(type)
        .header("Content-Security-Policy", "default-src 'none'; style-src 'unsafe-inline'; sandbox")
        .header(
            "Content-Disposition",
            (shown ? ContentDisposition.inline() : ContentDisposition.attachment())
                .filename(name, StandardCharsets.UTF_8)
                .build()
                .toString())
        .body(body);
  }
}
