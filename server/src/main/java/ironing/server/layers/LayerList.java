package ironing.server.layers;

import ironing.core.picture.Arrangement;
import ironing.core.workspace.Mod;
import ironing.server.layers.LayersViews.Bar;
import ironing.server.layers.LayersViews.LayerView;
import ironing.server.layers.LayersViews.LayersView;
import ironing.server.layers.LayersViews.SectionView;
import ironing.server.progress.KnownProgress;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springframework.stereotype.Component;

/** The install order as the list of layers shows it. */
@Component
class LayerList {
  private final OpenWorkspaces workspaces;
  private final KnownProgress journeys;
  private final Contributions contributions;
  private final ModNotes notes;

  LayerList(
      OpenWorkspaces workspaces,
      KnownProgress journeys,
      Contributions contributions,
      ModNotes notes) {
    this.workspaces = workspaces;
    this.journeys = journeys;
    this.contributions = contributions;
    this.notes = notes;
  }

  LayersView of(long workspace) {
    // the notes first: after a start the open workspace may still be on its way
    Map<Long, ModNotes.Note> told = notes.of(workspace);
    OpenWorkspace open = workspaces.get(workspace);
    Map<Long, Bar> bars = LayersViews.bars(open, contributions.contributed(open));
    KnownProgress.Ways ways = journeys.of(open);
    List<LayerView> views = new ArrayList<>();
    for (Arrangement.Layer l : open.picture().arrangement().layers()) {
      Mod m = open.mods().get(l.mod());
      Bar bar = bars.getOrDefault(l.mod(), Bar.NONE);
      views.add(
          new LayerView(
              m.id(),
              views.size() + 1,
              l.on(),
              l.section(),
              l.kept(),
              bar.covering() + bar.covered() + bar.contributing() + bar.twin(),
              open.picture().arrangement().heldBack().getOrDefault(m.id(), Set.of()).size(),
              told.getOrDefault(m.id(), ModNotes.Note.NONE).tags(),
              m.installedAt().toString(),
              m.card().name(),
              m.card().shownVersion(),
              m.card().id(),
              m.kind(),
              m.files(),
              m.sizeBytes(),
              m.plugins(),
              bar,
              ways.mod(m.id())));
    }
    return new LayersView(
        open.revision(),
        LayersViews.game(open, bars),
        views,
        open.picture().arrangement().sections().stream()
            .map(s -> new SectionView(s.id(), s.name()))
            .toList());
  }
}
