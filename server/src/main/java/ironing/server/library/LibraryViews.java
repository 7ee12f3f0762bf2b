package ironing.server.library;

import ironing.core.library.ModCard;
import ironing.core.library.Needs;
import ironing.core.workspace.Mod;
import ironing.server.library.IntakeViews.PartRequest;
import ironing.server.library.LibraryMapper.FileRow;
import ironing.server.platform.MayBeAbsent;
import ironing.server.progress.KnownProgress.ModJourney;
import ironing.server.workspace.OpenWorkspace;
import java.util.List;
import java.util.Set;

/** What {@link LibraryController} gives and takes, and how it is made of what the core says. */
final class LibraryViews {
  private LibraryViews() {}

  /**
   * @param root the folder of the archive in which the mod begins; absent to have it recognised
   * @param parts one for each mod that is to be made of it; absent for one, as {@code root} says
   */
  record InstallRequest(
      long archive, @MayBeAbsent String root, @MayBeAbsent List<PartRequest> parts) {
    List<Installer.Part> asParts() {
      if (parts != null) return parts.stream().map(PartRequest::part).toList();
      if (root == null) return List.of();
      return List.of(new PartRequest(root, null, null, null, null, null, null, null, null).part());
    }
  }

  /**
   * A mod as the list of the library shows it.
   *
   * @param strand all versions and fittings of one mod share it
   * @param inUse it has a layer; of several versions of one mod, one has
   * @param versions how many versions and fittings of it are here
   * @param betterFitting another choice of its contents would fit better by now
   * @param heldBack how many paths of it are held back
   * @param edited how many of its files were edited here
   */
  record ModView(
      long id,
      long strand,
      boolean inUse,
      int versions,
      String kind,
      String name,
      String version,
      String summary,
      List<String> authors,
      boolean inferred,
      @MayBeAbsent String band,
      String archiveName,
      int files,
      long sizeBytes,
      List<String> plugins,
      List<String> tags,
      boolean betterFitting,
      int heldBack,
      int edited,
      ModJourney journey) {}

  record LibraryView(List<ModView> mods) {}

  /**
   * @param pack the pack that it lies in, absent for a loose file
   * @param edited it is not as it came in the archive
   */
  record ModFile(
      String path,
      @MayBeAbsent String pack,
      String entry,
      long sizeBytes,
      String sha256,
      boolean edited) {}

  /**
   * @param kept it can be read in the library
   * @param chosen the user left it out
   */
  record LeftOut(String entry, String reason, long sizeBytes, boolean kept, boolean chosen) {}

  /**
   * @param found the version that is in the library, absent when there is none
   */
  record NeedView(
      String mod, String versions, Needs.State state, @MayBeAbsent String found, String name) {}

  /**
   * @param name the mod’s, where it is in the library; its id else
   */
  record Clash(String mod, String name, String why) {}

  /**
   * What a card says that its user may know better.
   *
   * @param url and the rest of where it comes from; empty where nothing is said
   */
  record CardText(
      String name,
      String version,
      List<String> authors,
      String summary,
      String url,
      String item,
      String release) {
    static CardText of(ModCard c) {
      ModCard.Source s = c.source().orElse(new ModCard.Source("", "", ""));
      return new CardText(
          c.name(), c.version(), c.authors(), c.summary(), s.url(), s.item(), s.release());
    }
  }

  /** One version or fitting of a mod. */
  record VersionView(
      long mod,
      String version,
      boolean inUse,
      String archiveName,
      String installedAt,
      long sizeBytes,
      boolean fitted) {}

  /**
   * @param inferred name and version were guessed from the archive's name
   * @param gameVersions the game that it is made for, as a range
   * @param given the card as it came, whatever was edited since
   * @param contentRoot the folder of the archive where it begins, empty for its top
   * @param choices what was decided of the archive's contents, so that it can be decided anew
   * @param better another choice that would fit better by now, absent when there is none
   * @param versions all of it that are here, the newest first
   * @param fileCount loose and packed ones; {@code files} holds the first of them
   * @param heldBack what is held back of it: files, and folders with {@code /} at the end
   */
  record ModDetail(
      long id,
      String kind,
      String cardId,
      String name,
      String version,
      List<String> authors,
      String summary,
      boolean inferred,
      @MayBeAbsent String band,
      String gameVersions,
      CardText card,
      CardText given,
      List<String> tags,
      String notes,
      @MayBeAbsent Long archive,
      String archiveName,
      String contentRoot,
      String rootReason,
      String installedAt,
      boolean fitted,
      PartRequest choices,
      @MayBeAbsent Fittings.Better better,
      List<VersionView> versions,
      boolean inUse,
      long sizeBytes,
      List<String> plugins,
      List<NeedView> needs,
      List<Clash> clashes,
      int fileCount,
      List<ModFile> files,
      List<LeftOut> leftOut,
      Set<String> heldBack,
      ModJourney journey) {}

  static ModView view(
      OpenWorkspace open,
      Mod m,
      boolean inUse,
      int versions,
      List<String> tags,
      boolean better,
      ModJourney journey) {
    ModCard card = m.card();
    return new ModView(
        m.id(),
        m.strand(),
        inUse,
        versions,
        m.kind(),
        card.name(),
        card.shownVersion(),
        card.summary(),
        card.authors(),
        card.inferred(),
        card.band().orElse(null),
        m.archiveName(),
        m.files(),
        m.sizeBytes(),
        m.plugins(),
        tags,
        better,
        open.picture().arrangement().heldBack().getOrDefault(m.id(), Set.of()).size(),
        m.edited().size(),
        journey);
  }

  static List<NeedView> needs(OpenWorkspace open, ModCard card) {
    return needs(open, card.needs());
  }

  static List<NeedView> needs(OpenWorkspace open, List<ModCard.Need> needs) {
    return Needs.each(needs, open.installed()).stream()
        .map(
            n ->
                new NeedView(
                    n.need().mod(),
                    n.need().versions(),
                    n.state(),
                    n.found().map(ModCard::version).orElse(null),
                    n.found().map(ModCard::name).orElse(n.need().mod())))
        .toList();
  }

  static List<Clash> clashes(OpenWorkspace open, ModCard card) {
    return card.clashes().stream()
        .map(c -> new Clash(c.mod(), Fittings.nameOf(open, c.mod()), c.why()))
        .toList();
  }

  static ModFile file(FileRow f) {
    String pack = f.pack().isEmpty() ? null : f.pack();
    return new ModFile(
        f.path(), pack, f.entry(), f.sizeBytes(), f.sha256(), f.givenSha256() != null);
  }
}
