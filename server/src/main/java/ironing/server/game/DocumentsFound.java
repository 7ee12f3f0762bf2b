package ironing.server.game;

import ironing.core.Problem;
import ironing.core.documents.DocumentPreview;
import ironing.core.game.DefinitionPreview.Part;
import ironing.core.game.GameDefinition;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;

/** What a definition that somebody writes finds in the documents of a game folder. */
record DocumentsFound(List<Part> parts, List<Problem> warnings) {

  /** Nothing for a game whose plugins are no open text. */
  static DocumentsFound in(
      GameDefinition game, Collection<String> paths, DocumentPreview.Folder folder) {
    if (!game.hasDocumentPlugins()) return new DocumentsFound(List.of(), List.of());
    DocumentPreview found = DocumentPreview.of(game, paths, folder);
    List<Problem> warnings = new ArrayList<>();
    for (String remark : found.remarks())
      warnings.add(
          new Problem(
              "plugin-odd",
              game.title(),
              remark,
              "See whether the definition says rightly how it is to be read."));
    if (!found.whole())
      warnings.add(
          new Problem(
              "plugin-odd",
              game.title(),
              "There are more documents than could be looked at in two seconds.",
              "All of them are read once the workspace is there."));
    return new DocumentsFound(found.parts(), warnings);
  }
}
