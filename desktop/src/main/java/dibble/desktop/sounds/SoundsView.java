package dibble.desktop.sounds;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Form;
import dibble.desktop.ui.View;
import dibble.desktop.ui.ViewContext;
import dibble.desktop.ui.ViewUpdater;
import dibble.gear.PartRef;
import dibble.presentation.BackgroundCache;
import dibble.presentation.Choice;
import dibble.presentation.Choices;
import dibble.presentation.SoundPreview;
import dibble.presentation.Subscription;
import dibble.presentation.sounds.SoundsPresenter;
import dibble.presentation.sounds.SoundsPresenter.Bank;
import dibble.presentation.sounds.SoundsPresenter.Sound;
import dibble.sound.Preset;
import dibble.sound.SoundBank;
import java.util.ArrayList;
import java.util.List;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** The sounds for a part: a highlighted sound is played, a chosen one becomes the part's. */
public final class SoundsView extends BorderPane implements View {
    private static final PseudoClass CHOSEN = PseudoClass.getPseudoClass("chosen");
    private static final double SIDE = 264;

    private final ViewContext desk;
    private final SoundsPresenter presenter;
    private final ViewUpdater watch;
    private final ComboBox<Choice<PartRef>> part = Cards.box("sounds-part", say("sounds-view.part"));
    private final TextField search = new TextField();
    private final ListView<Sound> list = new ListView<>();
    private final VBox files = new VBox(6);
    private final Label has = Cards.soft("");
    private final Label count = Cards.soft("");
    private final BackgroundCache<String, List<Preset>> usual = new BackgroundCache<>();
    private Sound heard;
    private boolean showing;

    /**
     * @param listening has sounds heard
     * @param open asks for a file of sounds
     */
    public SoundsView(ViewContext desk, SoundPreview listening, Runnable open) {
        this.desk = desk;
        presenter = new SoundsPresenter(desk.document(), listening);
        watch = desk.watch(this::show)
                .each(() -> {
                    if (usual.hasNews()) {
                        desk.pulse().once(this::show);
                    }
                })
                .with(() -> desk.pulse().whileSo(usual::isWorking));
        setId("sounds-view");
        getStyleClass().add("sounds-view");
        part.setOnAction(event -> {
            if (!showing && part.getValue() != null) {
                choose(part.getValue().value());
            }
        });
        part.setMinWidth(230);
        search.setId("sounds-search");
        search.setPromptText(say("sounds-view.search"));
        search.setAccessibleText(say("sounds-view.search"));
        search.setPrefColumnCount(22);
        search.textProperty().subscribe(text -> {
            presenter.search(text);
            watch.stale();
        });
        search.addEventHandler(KeyEvent.KEY_PRESSED, event -> {
            if (event.getCode() == KeyCode.DOWN) {
                list.requestFocus();
                list.getSelectionModel().selectFirst();
                event.consume();
            }
        });
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox title = new HBox(
                10,
                Cards.heading(say("sounds-view.title")),
                Cards.soft(say("sounds-view.for")),
                part,
                has,
                space,
                count,
                search);
        title.setAlignment(Pos.CENTER_LEFT);
        title.getStyleClass().add("levels-title");
        setTop(title);
        list.setId("sounds-list");
        list.setCellFactory(view -> new Cell());
        // A sound that is reached by keys is played too.
        list.getSelectionModel().selectedItemProperty().subscribe(sound -> {
            if (sound != null && list.isFocused()) {
                hear(sound);
            }
        });
        list.addEventHandler(KeyEvent.KEY_PRESSED, event -> {
            Sound sound = list.getSelectionModel().getSelectedItem();
            if (event.getCode() == KeyCode.ENTER && sound != null) {
                presenter.take(sound);
                event.consume();
            }
        });
        setCenter(list);
        files.getStyleClass().add("sounds-files");
        VBox side = new VBox(
                10,
                Cards.strong(say("sounds-view.files")),
                files,
                Cards.button("sounds-open", say("sounds-view.open"), open),
                wrapped(say("sounds-view.about")));
        side.getStyleClass().add("sounds-side");
        side.setMinWidth(SIDE);
        side.setPrefWidth(SIDE);
        side.setMaxWidth(SIDE);
        setRight(Cards.side(desk, "sounds-side", side, SIDE));
    }

    private static Label wrapped(String text) {
        Label label = Cards.soft(text);
        label.setWrapText(true);
        return label;
    }

    /** Chooses sounds for a part. */
    public void choose(PartRef ref) {
        presenter.choose(ref);
        watch.stale();
    }

    @Override
    public Subscription open() {
        return watch.open();
    }

    private void hear(Sound sound) {
        if (!sound.equals(heard)) {
            heard = sound;
            presenter.listen(sound);
        }
    }

    private void show() {
        showing = true;
        presenter.setUsual(usual.get("", false, SoundBank::usual).orElse(List.of()));
        List<PartRef> parts = presenter.parts();
        Form.choose(
                part,
                Choices.parts(desk.session()).stream()
                        .filter(choice -> parts.contains(choice.value()))
                        .toList(),
                presenter.target().orElse(null));
        List<Sound> sounds = presenter.sounds();
        if (!list.getItems().equals(sounds)) {
            list.getItems().setAll(sounds);
        } else {
            list.refresh();
        }
        has.setText(sounds.stream()
                .filter(presenter::isChosen)
                .findFirst()
                .map(sound -> say("sounds-view.has", sound.preset().name()))
                .orElse(""));
        count.setText(say("sounds-view.count", sounds.size()));
        List<Node> nodes = new ArrayList<>();
        nodes.add(file("all", say("sounds-view.all"), "", presenter.showsAll(), presenter::showAll));
        for (Bank bank : presenter.banks()) {
            String words = bank.missing()
                    ? say("sounds-view.missing", bank.name())
                    : say("sounds-view.file", bank.name(), bank.count());
            nodes.add(file(
                    bank.id() == null ? "own" : bank.id(),
                    words,
                    bank.path(),
                    presenter.isShown(bank.id()),
                    () -> presenter.only(bank.id())));
        }
        Cards.put(files, nodes);
        showing = false;
    }

    private ToggleButton file(String id, String words, String path, boolean on, Runnable choose) {
        ToggleButton button = new ToggleButton(words);
        button.setId("sounds-file-" + id);
        button.setMaxWidth(Double.MAX_VALUE);
        button.setAlignment(Pos.CENTER_LEFT);
        button.setSelected(on);
        if (!path.isEmpty()) {
            button.setTooltip(new Tooltip(path));
        }
        button.setOnAction(event -> {
            choose.run();
            watch.stale();
        });
        return button;
    }

    /** One sound: its program, its name, what file it is of. */
    private final class Cell extends ListCell<Sound> {
        private final Label number = new Label();
        private final Label name = Cards.strong("");
        private final Label kind = Cards.soft("");
        private final Label where = Cards.soft("");
        private final HBox line = new HBox(12, number, name, kind, where);

        Cell() {
            number.setMinWidth(44);
            number.setAlignment(Pos.CENTER_RIGHT);
            number.getStyleClass().add("soft");
            fix(name, 300);
            fix(kind, 200);
            line.setAlignment(Pos.CENTER_LEFT);
            setOnMouseEntered(event -> {
                if (getItem() != null) {
                    hear(getItem());
                }
            });
            Cards.onClick(this, event -> {
                if (getItem() != null) {
                    presenter.take(getItem());
                }
            });
        }

        private static void fix(Label label, double width) {
            label.setMinWidth(width);
            label.setMaxWidth(width);
        }

        @Override
        protected void updateItem(Sound sound, boolean nothing) {
            super.updateItem(sound, nothing);
            if (nothing || sound == null) {
                setGraphic(null);
                pseudoClassStateChanged(CHOSEN, false);
                return;
            }
            number.setText(String.valueOf(sound.preset().program() + 1));
            name.setText(sound.preset().name());
            kind.setText(SoundsPresenter.kind(sound));
            where.setText(presenter.where(sound));
            setAccessibleText(name.getText() + ", " + kind.getText() + ", " + where.getText());
            setGraphic(line);
            pseudoClassStateChanged(CHOSEN, presenter.isChosen(sound));
        }
    }
}
