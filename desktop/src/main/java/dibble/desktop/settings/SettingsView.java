package dibble.desktop.settings;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.EntryField;
import dibble.desktop.ui.View;
import dibble.desktop.ui.ViewContext;
import dibble.desktop.ui.ViewUpdater;
import dibble.jack.JackDevices;
import dibble.midi.MiddleC;
import dibble.presentation.BackgroundCache;
import dibble.presentation.Choice;
import dibble.presentation.Subscription;
import dibble.presentation.app.PathQuestions;
import dibble.presentation.settings.SettingsPresenter;
import dibble.session.SessionFormatter;
import dibble.user.Settings;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.function.BiFunction;
import java.util.function.Function;
import java.util.function.IntConsumer;
import java.util.function.IntFunction;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.OverrunStyle;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** The settings for all sessions; each choice applies at once. */
public final class SettingsView extends BorderPane implements View {
    private final ViewContext desk;
    private final VBox column = new VBox(18);
    private final SettingsPresenter presenter;
    private final ViewUpdater watch;
    private final Supplier<List<String>> audioDevices;
    private List<Object> drawn = List.of();
    private final BackgroundCache<String, List<String>> listed = new BackgroundCache<>();

    /** One of several that can be chosen. */
    private record Option(String id, String words, boolean chosen, Runnable choose) {}

    /** @param audioDevices finds the names of the audio devices, which takes a moment */
    public SettingsView(ViewContext desk, Supplier<List<String>> audioDevices) {
        this.audioDevices = audioDevices;
        this.desk = desk;
        presenter = new SettingsPresenter(desk.document(), desk.preferences());
        watch = desk.watch(this::show).each(() -> {
            if (listed.hasNews()) {
                desk.pulse().once(this::show);
            }
        });
        setId("settings");
        setCenter(Cards.scroll(column));
        column.getStyleClass().add("settings");
    }

    @Override
    public Subscription open() {
        return watch.open();
    }

    private void show() {
        Settings now = desk.preferences().get();
        List<Object> next = List.of(
                now,
                desk.session().middleC(),
                desk.session().sources(),
                desk.session().instruments(),
                listed.get("", false, audioDevices).orElse(List.of()));
        if (next.equals(drawn)) {
            // A button that is pressed must be there when it is released.
            return;
        }
        drawn = next;
        List<Node> nodes = new ArrayList<>(List.of(Cards.heading(say("common.settings"))));
        nodes.add(choice(
                say("settings-view.name-of-note-60"),
                say("settings-view.how-octaves-are-counted-in"),
                options(
                        MiddleC.values(),
                        "middle-c-",
                        Enum::name,
                        desk.session().middleC(),
                        presenter::name)));
        nodes.add(choice(
                say("settings-view.theme"),
                "",
                options(
                        Settings.Theme.values(),
                        "theme-",
                        theme -> say("theme." + theme.name().toLowerCase(Locale.ROOT)),
                        now.theme(),
                        theme -> desk.preferences().change(settings -> settings.withTheme(theme)))));
        nodes.add(choice(
                say("settings-view.size"),
                say("settings-view.large-is-easier-to-read"),
                List.of(
                        option(
                                "size-plain",
                                say("settings-view.normal"),
                                !now.large(),
                                settings -> settings.withLarge(false)),
                        option(
                                "size-large",
                                say("settings-view.large"),
                                now.large(),
                                settings -> settings.withLarge(true)))));
        nodes.add(choice(
                say("settings-view.keyboard-layout"),
                say("settings-view.upper-letter-row-of-the"),
                options(
                        Settings.Letters.values(),
                        "letters-",
                        Enum::name,
                        now.letters(),
                        layout -> desk.preferences().change(settings -> settings.withLetters(layout)))));
        nodes.add(audio(now));
        nodes.add(folders(now));
        nodes.add(limits(now));
        nodes.add(hidden(now));
        nodes.add(allowed(now));
        Label where = soft(say(
                "settings-view.settings-and-gear-shelf-are", desk.preferences().folder()));
        nodes.add(where);
        Cards.rebuild(column, nodes);
    }

    private Node audio(Settings now) {
        ComboBox<Choice<String>> device = Cards.box("audio-device", say("settings-view.audio-device"));
        List<Choice<String>> devices =
                new ArrayList<>(List.of(new Choice<>("", say("settings-view.the-systems-choice"))));
        List<String> names = listed.get("", false, audioDevices).orElse(List.of());
        names.forEach(name -> devices.add(new Choice<>(name, deviceName(name))));
        if (!now.audioDevice().isEmpty() && !names.contains(now.audioDevice())) {
            devices.add(
                    new Choice<>(now.audioDevice(), say("settings-view.not-connected", deviceName(now.audioDevice()))));
        }
        device.getItems().setAll(devices);
        device.setValue(devices.stream()
                .filter(it -> it.value().equals(now.audioDevice()))
                .findFirst()
                .orElseThrow());
        device.setOnAction(event -> {
            String name = device.getValue().value();
            desk.preferences().change(settings -> settings.withAudio(name, settings.audioMillis()));
        });
        EntryField buffer = number(
                "audio-buffer",
                say("settings-view.audio-buffer"),
                now.audioMillis(),
                Settings.AUDIO_MILLIS,
                millis -> desk.preferences().change(settings -> settings.withAudio(settings.audioDevice(), millis)));
        ComboBox<Choice<Integer>> rate = numbers(
                "audio-rate",
                say("settings-view.sample-rate"),
                Settings.AUDIO_RATES,
                it -> say("export-question.kilohertz", it / 1000.0),
                now.audioRate(),
                it -> desk.preferences().change(settings -> settings.withMixing(it, settings.audioBlock())));
        ComboBox<Choice<Integer>> block = numbers(
                "audio-block",
                say("settings-view.block"),
                Settings.AUDIO_BLOCKS.stream().sorted().toList(),
                it -> say("settings-view.frames", it),
                now.audioBlock(),
                it -> desk.preferences().change(settings -> settings.withMixing(settings.audioRate(), it)));
        EntryField pairs = number(
                "audio-pairs",
                say("settings-view.pairs"),
                now.audioPairs(),
                Settings.AUDIO_PAIRS,
                it -> desk.preferences().change(settings -> settings.withAudioPairs(it)));
        return section(
                say("settings-view.audio"),
                say("settings-view.device-of-the-built-in"),
                new VBox(
                        6,
                        Cards.flow(device, buffer, Cards.soft(say("settings-view.ms"))),
                        Cards.flow(rate, block, pairs, Cards.soft(say("settings-view.stereo-outputs")))));
    }

    private static ComboBox<Choice<Integer>> numbers(
            String id, String name, List<Integer> all, IntFunction<String> words, int now, IntConsumer choose) {
        ComboBox<Choice<Integer>> box = Cards.box(id, name);
        box.getItems()
                .setAll(all.stream()
                        .map(it -> new Choice<>(it, words.apply(it)))
                        .toList());
        box.getSelectionModel().select(all.indexOf(now));
        box.setOnAction(event -> choose.accept(box.getValue().value()));
        return box;
    }

    private Node folders(Settings now) {
        EntryField sessions = folder(
                "session-folder",
                say("settings-view.sessions"),
                now.sessionFolder(),
                (settings, folder) -> settings.withFolders(folder, settings.exportFolder()));
        EntryField exports = folder(
                "export-folder",
                say("settings-view.exports"),
                now.exportFolder(),
                (settings, folder) -> settings.withFolders(settings.sessionFolder(), folder));
        return section(
                say("settings-view.folders"),
                say("settings-view.where-file-questions-begin-leave"),
                new VBox(
                        4,
                        Cards.soft(say("settings-view.sessions")),
                        sessions,
                        Cards.soft(say("settings-view.exports")),
                        exports));
    }

    private EntryField folder(String id, String name, String now, BiFunction<Settings, String, Settings> taker) {
        EntryField[] field = new EntryField[1];
        field[0] = Cards.field(id, name, () -> {
            String typed = field[0].getText();
            String text = PathQuestions.parse(typed).map(Path::toString).orElse(typed);
            if (text.equals(now)) {
                return;
            }
            desk.jobs()
                    .start(
                            say("path-questions.looking-for", text),
                            progress -> text.isEmpty()
                                    || PathQuestions.parse(text)
                                            .filter(Files::isDirectory)
                                            .isPresent(),
                            isThere -> {
                                if (isThere) {
                                    desk.preferences().change(settings -> taker.apply(settings, text));
                                } else {
                                    desk.ask().tell(say("settings-view.no-such-folder", text));
                                    field[0].show(now);
                                }
                            });
        });
        field[0].setText(now);
        field[0].setPrefColumnCount(36);
        return field[0];
    }

    private Node limits(Settings now) {
        EntryField undo = number(
                "undo-memory",
                say("settings-view.undo-memory"),
                now.undoMegabytes(),
                Settings.UNDO_MEGABYTES,
                most -> desk.preferences().change(settings -> settings.withLimits(most, settings.backlogMinutes())));
        EntryField backlog = number(
                "backlog-minutes",
                say("settings-view.keep-what-i-just-played"),
                now.backlogMinutes(),
                Settings.BACKLOG_MINUTES,
                minutes ->
                        desk.preferences().change(settings -> settings.withLimits(settings.undoMegabytes(), minutes)));
        return section(
                say("settings-view.undo-and-unrecorded-playing"),
                "",
                Cards.soft(say("settings-view.undo-memory")),
                undo,
                Cards.soft(say("settings-view.mib")),
                Cards.soft(say("settings-view.keep-what-i-just-played")),
                backlog,
                Cards.soft(say("settings-view.minutes")));
    }

    private EntryField number(String id, String name, int now, Settings.Limits limits, IntConsumer taker) {
        EntryField[] field = new EntryField[1];
        field[0] = Cards.field(id, name, () -> {
            String text = field[0].getText().strip();
            boolean fits = text.matches("\\d{1,4}") && limits.hold(Integer.parseInt(text));
            if (fits) {
                taker.accept(Integer.parseInt(text));
            } else {
                desk.ask().tell(say("settings-view.expected-to", name, text, limits.low(), limits.high()));
                field[0].setText(String.valueOf(now));
            }
        });
        field[0].setText(String.valueOf(now));
        field[0].setPrefColumnCount(4);
        return field[0];
    }

    private static Node section(String title, String about, Node... nodes) {
        FlowPane line = new FlowPane(8, 6, nodes);
        VBox section = new VBox(6, Cards.strong(title), line);
        if (!about.isEmpty()) {
            section.getChildren().add(1, soft(about));
        }
        return section;
    }

    private Option option(String id, String words, boolean chosen, UnaryOperator<Settings> change) {
        return new Option(id, words, chosen, () -> desk.preferences().change(change));
    }

    private static <E extends Enum<E>> List<Option> options(
            E[] values, String prefix, Function<E, String> words, E chosen, java.util.function.Consumer<E> taker) {
        List<Option> options = new ArrayList<>();
        for (E value : values) {
            String id = prefix + value.name().toLowerCase(Locale.ROOT);
            options.add(new Option(id, words.apply(value), value == chosen, () -> taker.accept(value)));
        }
        return options;
    }

    private static Label soft(String text) {
        Label label = new Label(text);
        label.getStyleClass().add("soft");
        label.setWrapText(true);
        return label;
    }

    private static VBox choice(String name, String about, List<Option> options) {
        HBox buttons = new HBox(6);
        for (Option option : options) {
            ToggleButton button = new ToggleButton(option.words());
            button.setId(option.id());
            button.setAccessibleText(name + ": " + option.words());
            button.setSelected(option.chosen());
            button.setMinWidth(72);
            button.setOnAction(event -> {
                // One is always chosen.
                button.setSelected(true);
                option.choose().run();
            });
            buttons.getChildren().add(button);
        }
        VBox box = new VBox(6, Cards.strong(name), buttons);
        if (!about.isEmpty()) {
            box.getChildren().add(soft(about));
        }
        return box;
    }

    private VBox hidden(Settings now) {
        return list(
                say("settings-view.hidden-ports"),
                now.hiddenPorts().isEmpty() ? say("settings-view.none-ports-of-this-computer") : "",
                now.hiddenPorts(),
                port -> SessionFormatter.port(port, desk.session()),
                say("common.show-2"),
                name -> say("common.show", name),
                (settings, port) -> settings.withHidden(port, false));
    }

    private VBox allowed(Settings now) {
        return list(
                say("settings-view.allowed-folders"),
                say("settings-view.you-are-asked-before"),
                now.soundFolders(),
                folder -> folder,
                say("settings-view.ask-again"),
                name -> say("settings-view.ask-again-about", name),
                Settings::withoutSoundFolder);
    }

    /**
     * Returns a list of the user's items, each with a link that removes it.
     *
     * @param about the text below the title; empty for none
     * @param spoken the accessible text of a link
     */
    private VBox list(
            String title,
            String about,
            Set<String> entries,
            UnaryOperator<String> words,
            String verb,
            UnaryOperator<String> spoken,
            BiFunction<Settings, String, Settings> off) {
        VBox box = new VBox(6, Cards.strong(title));
        if (!about.isEmpty()) {
            box.getChildren().add(soft(about));
        }
        for (String entry : entries.stream().sorted().toList()) {
            Label name = new Label(words.apply(entry));
            name.setMinWidth(180);
            name.setTextOverrun(OverrunStyle.CENTER_ELLIPSIS);
            name.setTooltip(new Tooltip(name.getText()));
            Button take = new Button(verb);
            take.getStyleClass().add("link");
            take.setMinWidth(USE_PREF_SIZE);
            take.setAccessibleText(spoken.apply(name.getText()));
            take.setOnAction(event -> desk.preferences().change(settings -> off.apply(settings, entry)));
            HBox row = new HBox(8, name, take);
            row.setAlignment(Pos.CENTER_LEFT);
            box.getChildren().add(row);
        }
        return box;
    }

    private static String deviceName(String device) {
        return device.equals(JackDevices.SOUND) ? say("settings-view.jack-server") : device;
    }
}
