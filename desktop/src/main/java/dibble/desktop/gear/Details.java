package dibble.desktop.gear;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Form;
import dibble.desktop.ui.ViewContext;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.gear.SourceKind;
import dibble.presentation.gear.GearPresenter;
import dibble.presentation.gear.NamesActions;
import dibble.session.ShelfItem;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;

/** The details of the selected source, part, instrument or row of parts. */
final class Details extends VBox {
    private final ViewContext desk;
    private final GearPresenter presenter;
    private final Consumer<ShelfItem> keeper;
    private final Label title = Cards.heading("");
    private final Label about = Cards.soft("");
    private final SourceForms source;
    private final PartForms part;
    private final Form<Instrument> instrument;
    private final NamesPane names;
    private final LaneList lanes;
    private final PlantPane plant;
    private final Button more = new Button(say("details.more"));
    private boolean showsMore;
    private final FlowPane buttons = new FlowPane(6, 6);
    private Object shown;

    /**
     * @param keeper puts something on the gear shelf
     * @param names reads and writes names of sounds
     */
    Details(ViewContext desk, GearPresenter presenter, Consumer<ShelfItem> keeper, NamesActions names) {
        super(10);
        this.keeper = keeper;
        this.desk = desk;
        this.presenter = presenter;
        getStyleClass().add("gear-inspector");
        setId("gear-inspector");
        about.setWrapText(true);
        about.managedProperty().bind(about.textProperty().isNotEmpty());
        plant = new PlantPane(presenter);
        lanes = new LaneList(presenter);
        source = new SourceForms(desk, presenter);
        part = new PartForms(desk, presenter);
        instrument = InstrumentForm.of(desk, presenter);
        this.names = new NamesPane(presenter, names);
        more.setId("gear-more");
        more.getStyleClass().add("link");
        more.setOnAction(event -> {
            showsMore = !showsMore;
            more.setText(showsMore ? say("common.less") : say("details.more"));
            shown = null;
            show();
        });
    }

    private Part part(PartRef ref) {
        return desk.session().part(ref).orElseThrow();
    }

    /** Shows the selected object, if there is one. */
    void show() {
        List<PartRef> row = presenter.selectedParts();
        Optional<Instrument> whole = presenter.selectedInstrument();
        Optional<Source> player = presenter.selectedSource();
        if (row.size() > 1) {
            showRow(row);
        } else if (row.size() == 1) {
            showPart(row.get(0));
        } else if (whole.isPresent()) {
            showInstrument(whole.get());
        } else if (player.isPresent()) {
            showSource(player.get());
        }
    }

    /** Asks for the channels of the selected parts. */
    void plantSelected() {
        List<PartRef> row = presenter.selectedParts();
        Optional<Instrument> whole = presenter.selectedInstrument();
        if (!row.isEmpty()) {
            plant.askChannels(row);
        } else if (whole.isPresent()) {
            plant.askChannels(refs(whole.get().id()));
        }
    }

    /** Puts other nodes there only where something else is shown. */
    private void put(Object what, List<Node> nodes) {
        if (!what.equals(shown)) {
            shown = what;
            plant.close();
            getChildren().setAll(nodes);
        }
    }

    private void showRow(List<PartRef> row) {
        title.setText(say("details.parts", row.size()));
        about.setText(
                String.join(", ", row.stream().map(ref -> part(ref).name()).toList()));
        if (!row.equals(shown)) {
            buttons.getChildren()
                    .setAll(
                            Cards.button("plant-row", say("common.plant-channels"), () -> plant.askChannels(row)),
                            Cards.button("plant-outputs", say("details.plant-outputs"), () -> plant.askOutputs(row)));
        }
        put(row, List.of(title, about, buttons, plant));
    }

    private void showPart(PartRef ref) {
        Instrument owner = desk.session().instrument(ref.instrument()).orElseThrow();
        title.setText(owner.name() + " / " + part(ref).name());
        if (!ref.equals(shown)) {
            buttons.getChildren()
                    .setAll(
                            Cards.button("part-duplicate", say("common.duplicate"), () -> presenter.duplicatePart(ref)),
                            Cards.button("part-delete", say("common.delete"), () -> presenter.deletePart(ref)),
                            Cards.button("part-instrument", say("details.instrument"), () -> presenter.select(owner)));
        }
        List<Node> nodes = new ArrayList<>(List.of(title, part.mainForm(), more));
        if (showsMore) {
            nodes.add(part.moreForm());
            part.moreForm().show(ref);
        }
        nodes.addAll(List.of(buttons, plant));
        part.mainForm().show(ref);
        put(ref, nodes);
    }

    private void showInstrument(Instrument whole) {
        title.setText(whole.name());
        about.setText(identity(whole.port()));
        String key = "instrument " + whole.id();
        if (!key.equals(shown)) {
            buttons.getChildren()
                    .setAll(
                            Cards.button(
                                    "plant-instrument",
                                    say("common.plant-channels"),
                                    () -> plant.askChannels(refs(whole.id()))),
                            Cards.button(
                                    "plant-all-outputs",
                                    say("details.plant-outputs"),
                                    () -> plant.askOutputs(refs(whole.id()))),
                            keep(
                                    "keep-instrument",
                                    withZones -> presenter
                                            .instrumentToKeep(whole.id(), withZones)
                                            .ifPresent(keeper)),
                            Cards.button(
                                    "instrument-up", say("common.up"), () -> presenter.moveInstrument(whole.id(), -1)),
                            Cards.button(
                                    "instrument-down",
                                    say("common.down"),
                                    () -> presenter.moveInstrument(whole.id(), 1)),
                            Cards.button(
                                    "instrument-duplicate",
                                    say("common.duplicate"),
                                    () -> presenter.duplicateInstrument(whole.id())),
                            Cards.button(
                                    "instrument-delete",
                                    say("common.delete"),
                                    () -> presenter.deleteInstrument(whole.id())));
        }
        instrument.show(whole);
        names.show(whole);
        Cards.show(names, !whole.builtIn());
        // Below: who plants sees that first.
        put(key, List.of(title, about, instrument, buttons, plant, names));
    }

    /** An instrument's parts as they are now. */
    private List<PartRef> refs(String id) {
        return desk.session()
                .instrument(id)
                .map(now -> now.parts().stream().map(now::ref).toList())
                .orElse(List.of());
    }

    private void showSource(Source player) {
        title.setText(player.name());
        about.setText(identity(player.port()));
        String key = "source " + player.id() + player.kind();
        if (!key.equals(shown)) {
            buttons.getChildren()
                    .setAll(keep(
                            "keep-source",
                            withZones -> presenter
                                    .sourceToKeep(player.id(), withZones)
                                    .ifPresent(keeper)));
            if (player.kind() == SourceKind.PADS) {
                buttons.getChildren()
                        .add(Cards.button(
                                "plant-notes", say("details.plant-notes"), () -> plant.askNotes(player.id())));
            }
            if (player.kind() == SourceKind.SEQUENCER) {
                buttons.getChildren()
                        .add(Cards.button(
                                "plant-lanes", say("common.plant-channels"), () -> plant.askLanes(player.id())));
            }
            buttons.getChildren()
                    .add(Cards.button(
                            "source-delete", say("common.delete"), () -> presenter.deleteSource(player.id())));
        }
        List<Node> nodes = new ArrayList<>(List.of(title, about, source.mainForm()));
        if (player.kind() == SourceKind.SEQUENCER) {
            nodes.add(lanes);
            lanes.show(player);
        }
        nodes.add(more);
        if (showsMore) {
            nodes.add(source.moreForm());
            source.moreForm().show(player);
        }
        nodes.addAll(List.of(buttons, plant));
        source.mainForm().show(player);
        put(key, nodes);
    }

    private String identity(String port) {
        return desk.studio()
                .identity(port)
                .map(it -> say(
                        "details.identified-as-maker-family-model", it.maker(), it.family(), it.model(), it.version()))
                .orElse("");
    }

    private static MenuButton keep(String id, Consumer<Boolean> keeper) {
        MenuButton keep = new MenuButton(say("details.keep-on-gear-shelf"));
        keep.setId(id);
        keep.getItems()
                .setAll(
                        Cards.item(id + "-with", say("details.with-its-zones"), () -> keeper.accept(true)),
                        Cards.item(id + "-without", say("details.without-zones"), () -> keeper.accept(false)));
        return keep;
    }
}
