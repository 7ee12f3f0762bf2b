package ironing.server.library;

import ironing.core.IroningException;
import ironing.server.library.LibraryMapper.ArchiveRow;
import ironing.server.platform.Folders;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.InputStream;
import java.time.Duration;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;
import me.desair.tus.server.TusFileUploadService;
import me.desair.tus.server.exception.TusException;
import me.desair.tus.server.upload.UploadInfo;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.util.function.SingletonSupplier;

/**
 * Uploads that go on where they stopped, by the open tus protocol (version 1.0.0: core, creation,
 * termination, expiration). What has come in survives a restart of the server.
 */
@Component
class Uploads {
  /** Where the protocol speaks; an upload is known by its address below it. */
  static final String ADDRESS = "/api/uploads";

  private static final Logger LOG = LoggerFactory.getLogger(Uploads.class);
  private static final Duration KEPT = Duration.ofDays(7);
  private final Archives archives;
  private final Supplier<TusFileUploadService> tus;
  // those of which a piece is on its way in
  private final Set<String> sending = ConcurrentHashMap.newKeySet();

  Uploads(Archives archives, Folders folders) {
    this.archives = archives;
    this.tus =
        SingletonSupplier.of(
            () ->
                new TusFileUploadService()
                    .withUploadUri(ADDRESS)
                    .withStoragePath(folders.uploads().toString())
                    .withUploadExpirationPeriod(KEPT.toMillis())
                    .disableTusExtension("concatenation"));
  }

  /**
   * @throws IroningException with code {@code busy} while another request sends a piece of the same
   *     upload
   */
  void process(HttpServletRequest request, HttpServletResponse response) throws IOException {
    String upload = request.getRequestURI();
    boolean sends = request.getMethod().equals("PATCH");
    // of two that send the same piece the protocol's own answer would tell neither which came in
    if (sends && !sending.add(upload)) {
      throw IroningException.of(
          "busy",
          upload,
          "Another request is sending bytes of this upload.",
          "Ask with HEAD how far it has come, and go on from there.");
    }
    try {
      tus.get().process(request, response);
    } finally {
      if (sends) sending.remove(upload);
    }
  }

  /**
   * Makes an archive of an upload that is whole, and lets the upload go.
   *
   * @param address as the protocol gave it
   * @throws IroningException with code {@code not-found} or {@code upload-unfinished}
   */
  ArchiveRow take(long workspace, String address, String name) {
    String path = address.replaceFirst("^https?://[^/]+", "");
    try {
      UploadInfo info = path.startsWith(ADDRESS + "/") ? tus.get().getUploadInfo(path) : null;
      if (info == null) {
        throw IroningException.of(
            "not-found",
            name,
            "There is no such upload; it may have been taken already, or be older than a week.",
            "Drop the file again.");
      }
      if (info.isUploadInProgress()) {
        throw IroningException.of(
            "upload-unfinished",
            name,
            info.getOffset() + " of " + info.getLength() + " bytes have come in.",
            "Drop the same file again: it goes on where it stopped.");
      }
      ArchiveRow row;
      try (InputStream bytes = tus.get().getUploadedBytes(path)) {
        row = archives.store(workspace, name, bytes);
      }
      tus.get().deleteUpload(path);
      return row;
    } catch (TusException | IOException e) {
      throw ModStore.failed(name, e instanceof IOException io ? io : new IOException(e));
    }
  }

  @Scheduled(fixedRate = 3_600_000, initialDelay = 3_600_000)
  void letOldOnesGo() {
    try {
      tus.get().cleanup();
    } catch (IOException e) {
      LOG.warn("uploads that were given up stay: {}", e.getMessage());
    }
  }
}
