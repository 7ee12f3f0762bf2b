package ironing.server.library;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.archive.Unpacker.Unpacked;
import ironing.core.library.Choices;
import ironing.core.library.ContentLayout;
import ironing.core.library.ContentLayout.Outcome;
import ironing.core.library.Fitting;
import ironing.core.library.Fitting.Asked;
import ironing.core.library.ModCard;
import ironing.core.library.Needs;
import ironing.core.library.Placing;
import ironing.core.path.GamePath;
import ironing.core.workspace.Mod;
import ironing.core.yaml.YamlDocument;
import ironing.server.job.Job;
import ironing.server.job.Jobs;
import ironing.server.job.Jobs.Lane;
import ironing.server.library.LibraryMapper.ArchiveRow;
import ironing.server.library.LibraryViews.NeedView;
import ironing.server.library.Staging.Staged;
import ironing.server.platform.Events;
import ironing.server.platform.Json;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/**
 * Looking into an archive: what the game would get from it under given choices, and whether it can
 * be installed without a question.
 */
@Component
class Intake {
  private static final long LARGEST_YAML_BYTES = 4L << 20;
  private final Archives archives;
  private final Staging staging;
  private final LibraryMapper db;
  private final OpenWorkspaces workspaces;
  private final OwnPlaces places;
  private final Jobs jobs;
  private final Json json;
  private final Events events;

  Intake(
      Archives archives,
      Staging staging,
      LibraryMapper db,
      OpenWorkspaces workspaces,
      OwnPlaces places,
      Jobs jobs,
      Json json,
      Events events) {
    this.archives = archives;
    this.staging = staging;
    this.db = db;
    this.workspaces = workspaces;
    this.places = places;
    this.jobs = jobs;
    this.json = json;
    this.events = events;
  }

  /** What an archive needs of its user before it can be installed. */
  enum Decision {
    /** Nothing: one click installs it. */
    NONE,
    /** It asks questions. */
    QUESTIONS,
    /** Several folders in it could be where the mod begins. */
    SEVERAL,
    /** Another version of it is here. */
    VERSION,
    /** Its card or its questions cannot be read. */
    FLAWED,
    /** Nothing in it is for the game, as far as can be told. */
    NOTHING,
    /** It was refused: it cannot be installed. */
    REFUSED
  }

  /**
   * What looking into an archive came to; kept with it.
   *
   * @param files that the game would get
   * @param cardId by which versions of one mod are known for each other
   * @param here a version of the mod that is here, with {@link Decision#VERSION}
   * @param roots folders in which a mod could begin, with {@link Decision#SEVERAL}
   * @param needs what its card says that it needs; absent in a look of before that was kept
   * @param lacks what of that is not on as things are now; never kept
   */
  record Look(
      Decision decision,
      String cardId,
      String name,
      String version,
      int files,
      long sizeBytes,
      List<String> roots,
      @MayBeAbsent Long here,
      List<Problem> problems,
      @MayBeAbsent List<LookNeed> needs,
      @MayBeAbsent List<NeedView> lacks) {
    private Look with(Decision decision, Long here, List<NeedView> lacks) {
      return new Look(
          decision, cardId, name, version, files, sizeBytes, roots, here, problems, needs, lacks);
    }
  }

  /**
   * @param variant the one that it has to be of; absent where any will do
   */
  record LookNeed(String mod, String versions, @MayBeAbsent String variant) {
    static LookNeed of(ModCard.Need n) {
      return new LookNeed(n.mod(), n.versions(), n.variant().orElse(null));
    }

    ModCard.Need need() {
      return new ModCard.Need(mod, versions, Optional.ofNullable(variant));
    }
  }

  /** A look that was written down, with what is in the library by now. */
  Look asOfNow(long workspace, String written) {
    Look look = json.read(written, Look.class);
    List<NeedView> lacks = lacks(workspace, look);
    if (look.decision() != Decision.NONE) return look.with(look.decision(), look.here(), lacks);
    Long here = db.modsOfId(workspace, look.cardId()).stream().reduce((a, b) -> b).orElse(null);
    return look.with(here == null ? Decision.NONE : Decision.VERSION, here, lacks);
  }

  private List<NeedView> lacks(long workspace, Look look) {
    if (look.needs() == null || look.needs().isEmpty()) return List.of();
    List<ModCard.Need> needs = look.needs().stream().map(LookNeed::need).toList();
    return LibraryViews.needs(workspaces.get(workspace), needs).stream()
        .filter(n -> n.state() != Needs.State.MET)
        .toList();
  }

  /**
   * What one mod out of an archive would be.
   *
   * @param flaws of its card and its fitting; it can be installed without them
   * @param warnings of both, which are no mistakes
   * @param fitting empty when it asks nothing, or its questions were left aside
   */
  record Plan(
      Staged staged,
      Choices choices,
      Outcome outcome,
      ModCard card,
      List<Problem> flaws,
      List<Problem> warnings,
      Optional<FittingPlan> fitting) {
    /** With what was chosen and what was offered where nothing was chosen. */
    Choices settled() {
      return fitting.map(f -> choices.withAnswers(Fitting.answers(f.asked()))).orElse(choices);
    }
  }

  /**
   * @param folder of the archive in which it lies
   */
  record FittingPlan(
      String text,
      String folder,
      Fitting fitting,
      List<Asked> asked,
      Map<String, Boolean> truths) {}

  /** Looks into an archive in the background, and writes down what came of it. */
  Job look(long workspace, ArchiveRow row) {
    return jobs.start(
        workspace,
        Lane.LOOK,
        "look",
        "Look into " + row.name(),
        p -> {
          // installed meanwhile, by a script that did not wait: there is nothing left to look into
          if (archives.get(workspace, row.id()).mods() == 0) lookNow(workspace, row, p);
          if (archives.get(workspace, row.id()).mods() > 0) staging.drop(row.id());
          return row.id();
        });
  }

  /** Looks into what a server that has ended did not come to. */
  @EventListener(ApplicationReadyEvent.class)
  void lookIntoTheRest() {
    for (long workspace : workspaces.all())
      for (ArchiveRow row : db.archives(workspace))
        if (row.mods() == 0 && row.look() == null) look(workspace, row);
  }

  /** The same at once. */
  Look lookNow(long workspace, ArchiveRow row, Jobs.Progress progress) {
    Look look;
    try {
      Staged staged = staging.get(workspace, row, progress);
      look = lookAt(workspace, row, staged);
    } catch (IroningException e) {
      // a full drive says nothing of the archive
      if (!e.problems().get(0).code().startsWith("archive-")) throw e;
      look = refused(row, e.problems());
    }
    String written = json.write(look);
    db.setLook(row.id(), written);
    events.tell(workspace, "inbox", Map.of("archive", row.id()));
    return asOfNow(workspace, written);
  }

  private static Look refused(ArchiveRow row, List<Problem> problems) {
    ModCard card = ModCard.inferredFrom(row.name());
    return new Look(
        Decision.REFUSED,
        card.id(),
        card.name(),
        card.version(),
        0,
        0,
        List.of(),
        null,
        problems,
        List.of(),
        null);
  }

  private Look lookAt(long workspace, ArchiveRow row, Staged staged) {
    Plan plan = plan(workspace, row, staged, Choices.NONE, Set.of());
    List<String> roots =
        plan.outcome() instanceof Outcome.Several several ? several.roots() : List.of();
    int files = plan.outcome() instanceof Outcome.Laid laid ? laid.placed().size() : 0;
    return new Look(
        decision(plan),
        plan.card().id(),
        plan.card().name(),
        plan.card().shownVersion(),
        files,
        staged.sizeBytes(),
        roots,
        null,
        plan.flaws(),
        plan.card().needs().stream().map(LookNeed::of).toList(),
        null);
  }

  private static Decision decision(Plan plan) {
    if (!plan.flaws().isEmpty()) return Decision.FLAWED;
    if (plan.outcome() instanceof Outcome.Several) return Decision.SEVERAL;
    if (plan.fitting().isPresent()) return Decision.QUESTIONS;
    return plan.outcome() instanceof Outcome.Nothing ? Decision.NOTHING : Decision.NONE;
  }

  /**
   * What a mod made of an archive would be. Writes nothing.
   *
   * @param without versions of the mod itself that its conditions must not see
   */
  Plan plan(long workspace, ArchiveRow row, Staged staged, Choices choices, Set<Long> without) {
    Placing placing = places.of(workspace).ofArchive(row.name());
    List<String> paths = staged.entries().stream().map(Unpacked::path).toList();
    choices.root().filter(r -> !r.isEmpty()).ifPresent(GamePath::check);
    Told told = new Told(new ArrayList<>(), new ArrayList<>());
    Outcome begins = ContentLayout.begins(placing, paths, choices);
    String root = begins instanceof Outcome.Laid laid ? laid.root() : "";
    ModCard card = card(row.name(), staged.tree(), choices, root, told);
    // looked at again, it must not meet itself in what it asks of other mods
    Set<Long> own = new HashSet<>(without);
    own.addAll(db.modsOfId(workspace, card.id()));
    Optional<FittingPlan> fitting =
        choices.plain() || !(begins instanceof Outcome.Laid)
            ? Optional.empty()
            : fitting(workspace, row, staged.tree(), root, choices, own, told);
    Outcome outcome = outcome(placing, paths, choices, fitting, told);
    return new Plan(
        staged,
        choices,
        outcome,
        card,
        List.copyOf(told.flaws()),
        List.copyOf(told.warnings()),
        fitting);
  }

  /** What is found to be wrong, or odd, on the way. */
  private record Told(List<Problem> flaws, List<Problem> warnings) {
    <T> T taken(YamlDocument.Read<T> read) {
      warnings.addAll(read.warnings());
      return read.value();
    }
  }

  /** What was chosen for the version that it is to replace, as far as this one has it. */
  Choices carried(long workspace, Staged staged, Choices choices, long instead) {
    LibraryMapper.ModRow row = db.mod(workspace, instead);
    if (row == null) return choices;
    List<String> paths = staged.entries().stream().map(Unpacked::path).toList();
    Outcome begins = ContentLayout.begins(places.of(workspace), paths, choices);
    String root = begins instanceof Outcome.Laid laid ? laid.root() : "";
    return json.read(row.choices(), Choices.class)
        .carriedTo(choices, row.contentRoot(), root, paths);
  }

  private static Outcome outcome(
      Placing placing,
      List<String> paths,
      Choices choices,
      Optional<FittingPlan> fitting,
      Told told) {
    if (fitting.isEmpty()) return ContentLayout.of(placing, paths, choices);
    try {
      FittingPlan f = fitting.get();
      return ContentLayout.fitted(placing, paths, choices, f.fitting().moves(f.asked()));
    } catch (IroningException wrong) {
      told.flaws().addAll(wrong.problems());
      return new Outcome.Nothing();
    }
  }

  private static ModCard card(String archive, Path tree, Choices choices, String root, Told told) {
    ModCard inferred = ModCard.inferredFrom(archive, root);
    if (choices.name().isPresent()) inferred = inferred.named(choices.name().get());
    try {
      Optional<String> text = text(archive, tree, root, ContentLayout.CARD);
      if (text.isEmpty()) return inferred;
      String file = archive + " › " + ContentLayout.CARD;
      return told.taken(ModCard.readWithWarnings(file, text.get()));
    } catch (IroningException e) {
      told.flaws().addAll(e.problems());
      return inferred;
    }
  }

  private Optional<FittingPlan> fitting(
      long workspace,
      ArchiveRow row,
      Path tree,
      String root,
      Choices choices,
      Set<Long> without,
      Told told) {
    try {
      Optional<String> text = text(row.name(), tree, root, ContentLayout.FITTING);
      if (text.isEmpty()) return Optional.empty();
      String file = row.name() + " › " + ContentLayout.FITTING;
      Fitting fitting = told.taken(Fitting.readWithWarnings(file, text.get()));
      BenchFacts facts = new BenchFacts(() -> workspaces.get(workspace), without);
      List<Asked> asked = fitting.asked(choices.answers(), facts);
      return Optional.of(new FittingPlan(text.get(), root, fitting, asked, fitting.truths(facts)));
    } catch (IroningException e) {
      told.flaws().addAll(e.problems());
      return Optional.empty();
    }
  }

  // bytes that are no UTF-8 become marks in the text: a name may look odd, nothing is refused
  private static Optional<String> text(String archive, Path tree, String root, String name) {
    Path file = GamePath.resolve(tree, GamePath.join(root, name));
    try {
      if (!Files.isRegularFile(file)) return Optional.empty();
      if (Files.size(file) > LARGEST_YAML_BYTES) {
        throw IroningException.of(
            "yaml-invalid",
            archive + " › " + name,
            "It is larger than 4 MiB.",
            "Tell its author. It can be taken as it is, without this file.");
      }
      return Optional.of(new String(Files.readAllBytes(file), StandardCharsets.UTF_8));
    } catch (IOException e) {
      throw ModStore.failed(name, e);
    }
  }

  /** All versions of a mod, which its own conditions must not see. */
  static Set<Long> strandOf(OpenWorkspace open, long mod) {
    Set<Long> all = new HashSet<>();
    Mod m = open.mods().get(mod);
    if (m != null)
      open.mods().values().stream()
          .filter(o -> o.strand() == m.strand())
          .forEach(o -> all.add(o.id()));
    return all;
  }
}
