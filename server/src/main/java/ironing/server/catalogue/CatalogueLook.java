package ironing.server.catalogue;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.archive.ContentHash;
import ironing.core.catalogue.Catalogue;
import ironing.core.catalogue.Catalogue.Part;
import ironing.core.catalogue.Trust;
import ironing.core.catalogue.Trust.Verdict;
import ironing.core.disk.FolderTree;
import ironing.server.catalogue.CatalogueMapper.CatalogueRow;
import ironing.server.catalogue.CatalogueTaking.News;
import ironing.server.catalogue.Source.Coming;
import ironing.server.catalogue.Source.NotThere;
import ironing.server.catalogue.Source.State;
import ironing.server.fetch.Fetcher;
import ironing.server.fetch.Patience;
import ironing.server.job.Jobs;
import ironing.server.platform.Folders;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.net.UnknownHostException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.time.Duration;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/**
 * One look at a catalogue: is there another state, may it be believed, which of its parts are not
 * here yet. A state is taken whole or not at all.
 */
@Component
class CatalogueLook {
  /** So slow that nobody waits for it: fewer bytes a second, after a while to begin with. */
  private static final long SLOWEST_BYTES_A_SECOND = 1_024;

  private static final long BEGINNING_MS = 60_000;

  private final CatalogueTaking taking;
  private final Folders folders;
  private final Patience patience;
  private final Duration againAfter;

  CatalogueLook(
      CatalogueTaking taking,
      Folders folders,
      Patience patience,
      @Value("${ironing.catalogue.again-after}") Duration againAfter) {
    this.taking = taking;
    this.folders = folders;
    this.patience = patience;
    this.againAfter = againAfter;
  }

  /** What a look came to. */
  sealed interface Outcome {
    /** The state is another, and was taken. */
    record Taken(int parts, News news) implements Outcome {}

    /** The state is the one that is here. */
    record Same() implements Outcome {}

    /**
     * Nothing was taken.
     *
     * @param otherKey the key that was found, where that is the reason
     */
    record Refused(List<Problem> problems, Optional<String> otherKey) implements Outcome {
      Refused(List<Problem> problems) {
        this(problems, Optional.empty());
      }
    }
  }

  /** Asks once, and again where that can help. Nothing but the catalogue's own rows is written. */
  Outcome look(CatalogueRow row, Source source, String game, Jobs.Progress progress) {
    try {
      return looked(row, source, game, progress);
    } catch (IroningException e) {
      return new Outcome.Refused(e.problems());
    } catch (NotThere e) {
      return new Outcome.Refused(List.of(notThere(e)));
    } catch (UncheckedIOException e) {
      return unreachable(row, e.getCause());
    } catch (IOException e) {
      return unreachable(row, e);
    }
  }

  private static Outcome unreachable(CatalogueRow row, IOException e) {
    return new Outcome.Refused(
        List.of(
            new Problem(
                "catalogue-unreachable",
                row.address(),
                Fetcher.said(e),
                "What was known of it stays. Look again later, or check the address.")));
  }

  private Outcome looked(CatalogueRow row, Source source, String game, Jobs.Progress progress)
      throws IOException {
    Found found = null;
    for (int i = 0; i < 2; i++) {
      if (i > 0) Patience.await(againAfter, () -> progress.at(0, 0, ""));
      // the tag is only of use while what it stands for is here
      String etag = i > 0 || row.etag() == null ? "" : row.etag();
      Optional<State> state = patiently(progress, () -> source.state(etag));
      if (state.isEmpty()) return new Outcome.Same();
      found = judged(row, source, state.get(), progress);
      if (!(found.verdict instanceof Verdict.Refused r && r.again())) break;
    }
    if (found.verdict instanceof Verdict.Refused r)
      return new Outcome.Refused(List.of(r.problem()), otherKey(row, found.catalogue));
    if (found.verdict instanceof Verdict.Same) {
      taking.sameAgain(row, found.etag);
      return new Outcome.Same();
    }
    requireGame(found.catalogue, game);
    return take(row, source, found, ((Verdict.Taken) found.verdict).kept(), progress);
  }

  private static Optional<String> otherKey(CatalogueRow row, Catalogue found) {
    return Optional.of(found.key())
        .filter(k -> !k.isEmpty() && row.key() != null && !k.equals(row.key()));
  }

  private record Found(
      Catalogue catalogue, byte[] bytes, String sha256, String etag, Verdict verdict) {}

  private Found judged(CatalogueRow row, Source source, State state, Jobs.Progress progress)
      throws IOException {
    Catalogue catalogue = Catalogue.read(state.bytes());
    String sha256 = HexFormat.of().formatHex(ContentHash.digest().digest(state.bytes()));
    boolean isSigned = !catalogue.key().isEmpty() || (row.key() != null && !row.key().isEmpty());
    Optional<String> signature =
        isSigned ? patiently(progress, source::signature) : Optional.empty();
    Optional<Trust> here =
        row.stateSha256() == null
            ? Optional.empty()
            : Optional.of(new Trust(row.key(), row.sequence(), row.stateSha256()));
    Verdict verdict = Trust.judge(here, catalogue, state.bytes(), sha256, signature);
    return new Found(catalogue, state.bytes(), sha256, state.etag(), verdict);
  }

  private static void requireGame(Catalogue catalogue, String game) {
    if (catalogue.games().isEmpty() || catalogue.games().contains(game)) return;
    throw IroningException.of(
        "catalogue-other-game",
        "“" + catalogue.title() + "”",
        "It is for " + String.join(", ", catalogue.games()) + ", and this game is " + game + ".",
        "Add it to a workspace of that game.");
  }

  private Outcome take(
      CatalogueRow row, Source source, Found found, Trust kept, Jobs.Progress progress)
      throws IOException {
    Path folder = folders.incoming(row.workspaceId()).resolve("catalogue-" + UUID.randomUUID());
    Files.createDirectories(folder);
    try {
      Map<Part, Path> fresh = new LinkedHashMap<>();
      List<Part> due = taking.due(row, found.catalogue);
      long total = due.stream().mapToLong(Part::size).sum();
      long done = 0;
      for (Part part : due) {
        Path file = folder.resolve(part.sha256());
        long before = done;
        patiently(
            progress,
            () -> {
              fetch(source, part, found.catalogue.hosts(), file, before, total, progress);
              return file;
            });
        done += part.size();
        fresh.put(part, file);
      }
      Path findings = findings(row, source, found.catalogue, folder, progress);
      progress.at(total, total, "bytes");
      String state = new String(found.bytes, StandardCharsets.UTF_8);
      News news =
          taking.take(row, found.catalogue, kept, found.sha256, found.etag, state, fresh, findings);
      return new Outcome.Taken(fresh.size(), news);
    } finally {
      deleteQuietly(folder);
    }
  }

  /** The file of a state's findings; null where there are none, or those that are here. */
  private Path findings(
      CatalogueRow row, Source source, Catalogue state, Path folder, Jobs.Progress progress)
      throws IOException {
    if (state.findings().isEmpty() || !CatalogueTaking.hasOtherFindings(row, state)) return null;
    Part part = state.findings().get();
    Path file = folder.resolve("findings");
    return patiently(
        progress,
        () -> {
          fetch(source, part, state.hosts(), file, 0, part.size(), progress);
          return file;
        });
  }

  private static void fetch(
      Source source,
      Part part,
      List<String> hosts,
      Path file,
      long before,
      long total,
      Jobs.Progress progress)
      throws IOException {
    MessageDigest sha = ContentHash.digest();
    long size = 0, began = System.currentTimeMillis();
    try (Coming coming = source.open(part.href(), hosts);
        OutputStream out = Files.newOutputStream(file)) {
      InputStream in = coming.bytes();
      byte[] buffer = new byte[64 * 1024];
      for (int n; (n = in.read(buffer)) >= 0; ) {
        size += n;
        if (size > part.size()) throw wrongSize(part, "more");
        sha.update(buffer, 0, n);
        out.write(buffer, 0, n);
        progress.at(before + size, total, "bytes");
        requireSpeed(size, System.currentTimeMillis() - began);
      }
    }
    if (size < part.size()) throw wrongSize(part, String.valueOf(size));
    String hex = HexFormat.of().formatHex(sha.digest());
    if (!hex.equals(part.sha256())) {
      throw IroningException.of(
          "digest-other",
          part.href(),
          "Its SHA-256 is " + hex + ", and the catalogue says " + part.sha256() + ".",
          "What was known stays. Look again later; if it remains so, tell its keeper.");
    }
  }

  private static void requireSpeed(long size, long elapsedMs) throws IOException {
    if (elapsedMs > BEGINNING_MS && size * 1_000 / elapsedMs < SLOWEST_BYTES_A_SECOND)
      throw new IOException("it comes too slowly");
  }

  private static IroningException wrongSize(Part part, String found) {
    return IroningException.of(
        "size-other",
        part.href(),
        "It has " + found + " bytes, and the catalogue says " + part.size() + ".",
        "What was known stays. Look again later; if it remains so, tell its keeper.");
  }

  private interface Step<T> {
    T run() throws IOException;
  }

  /** Tries again where the line broke, or where the other side asked to. */
  private <T> T patiently(Jobs.Progress progress, Step<T> step) throws IOException {
    for (int tries = 1; ; tries++) {
      IOException failed;
      Optional<String> retryAfter = Optional.empty();
      try {
        return step.run();
      } catch (NotThere e) {
        if (!e.isForNow()) throw e;
        failed = e;
        retryAfter = e.retryAfter();
      } catch (FileSystemException | UnknownHostException e) {
        // a full disk stays full, and without a network waiting is of no use
        throw e;
      } catch (IOException e) {
        failed = e;
      }
      Optional<Duration> wait = patience.next(tries, retryAfter);
      if (wait.isEmpty()) throw failed;
      Patience.await(wait.get(), () -> progress.at(0, 0, ""));
    }
  }

  private static Problem notThere(NotThere e) {
    String reason =
        switch (e.status()) {
          case 404, 410 -> "There is no such file.";
          case 401, 403 -> "It may not be read by everybody.";
          case 429 -> "It asks not to be asked for now.";
          default -> "It answers with the status " + e.status() + ".";
        };
    return new Problem(
        "catalogue-unreachable",
        e.getMessage(),
        reason,
        "What was known of it stays. Check the address, or look again later.");
  }

  private static void deleteQuietly(Path folder) {
    try {
      FolderTree.remove(folder);
    } catch (IOException litter) {
      // the next start clears the incoming folder
    }
  }
}
