using System.Globalization;
using NodaTime.Text;

namespace SpringLoft.Core.Letters;

/// <summary>What families read, in one of the languages that the program writes to homes in. Everything else of the program is in the school's own.</summary>
/// <param name="Code">BCP 47, two letters.</param>
/// <param name="Name">As its own speakers call it.</param>
/// <param name="Day">Pattern of a day in it.</param>
public sealed record HomeWords(string Code, string Name, string Day)
{
    private string Pick(string en, string de, string fr, string es) => Code switch { "de" => de, "fr" => fr, "es" => es, _ => en };

    /// <summary>The languages; the first is taken where nobody said another.</summary>
    public static IReadOnlyList<HomeWords> All { get; } =
    [
        new HomeWords("en", "English", "dddd, d MMMM uuuu"), new HomeWords("de", "Deutsch", "dddd, d. MMMM uuuu"), new HomeWords("fr", "Français", "dddd d MMMM uuuu"), new HomeWords("es", "Español", "dddd, d 'de' MMMM 'de' uuuu"),
    ];

    /// <summary>The language by its code, or by the first that a browser asks for (RFC 9110, Accept-Language); English where none is ours.</summary>
    public static HomeWords Of(string? asked) =>
        (asked ?? "").Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries).Select(l => l.Split(';')[0].Split('-')[0])
        .Select(l => All.FirstOrDefault(w => string.Equals(w.Code, l, StringComparison.OrdinalIgnoreCase))).FirstOrDefault(w => w is not null) ?? All[0];

    /// <summary>A day, with its weekday.</summary>
    public string Say(LocalDate day) => LocalDatePattern.Create(Day, CultureInfo.GetCultureInfo(Code)).Format(day);

    // At home, by a code.
    public string TypeCode => Pick("Type the code that is on your paper", "Geben Sie den Code von Ihrem Blatt ein", "Saisissez le code de votre feuille", "Escriba el código de su hoja");
    public string CodeLabel => Pick("Code, like FHKM-3479-CDWX", "Code, zum Beispiel FHKM-3479-CDWX", "Code, par exemple FHKM-3479-CDWX", "Código, por ejemplo FHKM-3479-CDWX");
    public string Open => Pick("Open", "Öffnen", "Ouvrir", "Abrir");
    public string CodeWrong => Pick("This is no code that opens anything now. Look at it once more, or ask the teacher for a new paper.", "Mit diesem Code lässt sich zurzeit nichts öffnen. Sehen Sie noch einmal nach oder bitten Sie die Lehrkraft um ein neues Blatt.",
        "Ce code n’ouvre rien pour le moment. Vérifiez-le ou demandez une nouvelle feuille à l’enseignant.", "Este código no abre nada por ahora. Revíselo o pida otra hoja al profesorado.");
    public string TooMany => Pick("Too many wrong codes came from here. Wait some minutes, then try again.", "Von hier kamen zu viele falsche Codes. Warten Sie einige Minuten und versuchen Sie es dann noch einmal.",
        "Trop de codes erronés sont venus d’ici. Attendez quelques minutes, puis réessayez.", "Han llegado demasiados códigos erróneos desde aquí. Espere unos minutos e inténtelo de nuevo.");
    public string AboutWhom(string student) => Pick($"For the family of {student}", $"Für die Familie von {student}", $"Pour la famille de {student}", $"Para la familia de {student}");
    public string AsksYou(string who) => Pick($"{who} asks you to read this and to say that you have.", $"{who} bittet Sie, dies zu lesen und es zu bestätigen.", $"{who} vous demande de lire ceci et de le confirmer.", $"{who} le pide que lea esto y lo confirme.");
    public string Until(LocalDate day) => Pick($"By {Say(day)}.", $"Bis {Say(day)}.", $"Au plus tard le {Say(day)}.", $"Hasta el {Say(day)}.");
    public string OpenFile(string name) => Pick($"Open “{name}”", $"„{name}“ öffnen", $"Ouvrir « {name} »", $"Abrir «{name}»");
    public string YourName => Pick("Your name", "Ihr Name", "Votre nom", "Su nombre");
    public string NameMissing => Pick("Write your name, so that the school knows who has read it.", "Schreiben Sie Ihren Namen, damit die Schule weiß, wer es gelesen hat.", "Écrivez votre nom, pour que l’école sache qui l’a lu.", "Escriba su nombre, para que el centro sepa quién lo ha leído.");
    public string IHaveRead => Pick("I have read this", "Ich habe es gelesen", "J’ai lu ceci", "Lo he leído");
    public string Said(string name, LocalDate day) => Pick($"{name} acknowledged this on {Say(day)}. There is nothing more to do.", $"{name} hat dies am {Say(day)} bestätigt. Mehr ist nicht zu tun.",
        $"{name} l’a confirmé le {Say(day)}. Il n’y a plus rien à faire.", $"{name} lo confirmó el {Say(day)}. No hay nada más que hacer.");

    /// <summary>A moment of a day.</summary>
    public string Say(LocalTime time) => Pick($"{time:H:mm}", $"{time:H:mm} Uhr", $"{time:H' h 'mm}", $"{time:H:mm}");

    // The weekly letter.
    public string LetterTitle(string school, LocalDate day) => Pick($"The week at {school}, {Say(day)}", $"Die Woche an der Schule {school}, {Say(day)}", $"La semaine à {school}, {Say(day)}", $"La semana en {school}, {Say(day)}");
    public string Greeting(string name) => Pick($"Good afternoon, {name}.", $"Guten Tag, {name}.", $"Bonjour, {name}.", $"Buenas tardes, {name}:");
    public string ToAcknowledge => Pick("To read and acknowledge", "Zu lesen und zu bestätigen", "À lire et à confirmer", "Para leer y confirmar");
    public string DueSoon => Pick("Due in the next seven days", "In den nächsten sieben Tagen fällig", "À rendre dans les sept prochains jours", "Para entregar en los próximos siete días");
    public string NotIn => Pick("Not handed in yet, and still taken", "Noch nicht abgegeben, wird aber noch angenommen", "Pas encore rendu, mais encore accepté", "Aún sin entregar, pero todavía se acepta");
    public string CameBack => Pick("Came back", "Zurückgekommen", "Rendu corrigé", "Devuelto");
    public string Notices => Pick("Notices", "Mitteilungen", "Annonces", "Avisos");
    public string DueOn(LocalDate day, LocalTime? time) => Pick($"due {DayAndTime(day, time)}", $"fällig am {DayAndTime(day, time)}", $"pour le {DayAndTime(day, time)}", $"para el {DayAndTime(day, time)}");
    public string WasDueOn(LocalDate day) => Pick($"was due {Say(day)}", $"war fällig am {Say(day)}", $"était à rendre le {Say(day)}", $"era para el {Say(day)}");
    public string Marked(string score, string points) => Pick($"{score} of {points} points", $"{score} von {points} Punkten", $"{score} points sur {points}", $"{score} de {points} puntos");
    public string MarkedAs(string level) => Pick($"mark: {level}", $"Bewertung: {level}", $"appréciation : {level}", $"calificación: {level}");
    public string WhyThisLetter(string school) => Pick($"{school} writes to you because you are named there as a contact.", $"{school} schreibt Ihnen, weil Sie dort als Kontakt genannt sind.",
        $"{school} vous écrit parce que vous y êtes indiqué comme contact.", $"{school} le escribe porque figura allí como contacto.");
    public string StopHere => Pick("To have these letters stopped, open:", "Um diese Briefe abzubestellen, öffnen Sie:", "Pour ne plus recevoir ces lettres, ouvrez :", "Para dejar de recibir estas cartas, abra:");
    public string StopTitle => Pick("Weekly letter", "Wochenbrief", "Lettre de la semaine", "Carta semanal");
    public string StopAsk(string students) => Pick($"Each week a letter about {students} goes to you.", $"Jede Woche geht ein Brief über {students} an Sie.", $"Chaque semaine, une lettre au sujet de {students} vous est envoyée.", $"Cada semana se le envía una carta sobre {students}.");
    public string Stop => Pick("Stop the letters", "Briefe abbestellen", "Ne plus recevoir les lettres", "Dejar de recibir las cartas");
    public string Stopped => Pick("No weekly letter comes to you any more. Should you want it again, press the button.", "Sie bekommen keinen Wochenbrief mehr. Möchten Sie ihn wieder, drücken Sie den Knopf.",
        "Vous ne recevrez plus de lettre. Si vous la souhaitez de nouveau, appuyez sur le bouton.", "Ya no recibirá la carta semanal. Si la quiere de nuevo, pulse el botón.");
    public string HaveAgain => Pick("Have the letters again", "Briefe wieder bekommen", "Recevoir de nouveau les lettres", "Volver a recibir las cartas");
    public string LinkWrong => Pick("This address leads to no letter any more. Ask the school.", "Diese Adresse führt zu keinem Brief mehr. Fragen Sie die Schule.", "Cette adresse ne mène plus à aucune lettre. Adressez-vous à l’école.", "Esta dirección ya no lleva a ninguna carta. Pregunte en el centro.");

    // On paper, from one class.
    public string ListBelow(LocalDate day, LocalDate until) => Pick($"As of {Say(day)}, until {Say(until)}.", $"Stand {Say(day)}, bis {Say(until)}.", $"État du {Say(day)}, jusqu’au {Say(until)}.", $"A {Say(day)}, hasta el {Say(until)}.");
    public string ToHandIn => Pick("To hand in", "Abzugeben", "À rendre", "Para entregar");
    public string NothingToHandIn => Pick("Nothing is due until then.", "Bis dahin ist nichts fällig.", "Rien n’est à rendre d’ici là.", "No hay nada que entregar hasta entonces.");
    public string Folders => Pick("Folders", "Ordner", "Dossiers", "Carpetas");
    public string Dates => Pick("Dates", "Termine", "Dates à retenir", "Fechas");
    public string NoDates => Pick("No dates yet.", "Noch keine Termine.", "Pas encore de dates.", "Todavía no hay fechas.");

    // An open shelf.
    public string OpenUntil(LocalDate day) => Pick($"Open until {Say(day)}. To read, not to change.", $"Offen bis {Say(day)}. Zum Lesen, nicht zum Ändern.", $"Ouvert jusqu’au {Say(day)}. À lire, sans rien modifier.", $"Abierto hasta el {Say(day)}. Para leer, no para cambiar.");
    public string AtTheTop => Pick("Here", "Hier", "Ici", "Aquí");
    public string BackTo(string title) => Pick($"Back to “{title}”", $"Zurück zu „{title}“", $"Retour à « {title} »", $"Volver a «{title}»");
    public string ShelfShutTitle => Pick("This shelf is not open", "Dieses Regal ist nicht offen", "Cette étagère n’est pas ouverte", "Esta estantería no está abierta");
    public string ShelfShut => Pick("It was shut, or its last day is over. Ask the teacher who gave you the address.", "Es wurde geschlossen, oder sein letzter Tag ist vorbei. Fragen Sie die Lehrkraft, von der Sie die Adresse haben.",
        "Elle a été fermée, ou son dernier jour est passé. Demandez à l’enseignant qui vous a donné l’adresse.", "Se cerró, o ya pasó su último día. Pregunte al profesorado que le dio la dirección.");

    /// <summary>Several names as one reads them, as "Umi, Ada and Leo".</summary>
    public string And(IReadOnlyList<string> names) => names.Count < 2 ? string.Concat(names) : $"{string.Join(", ", names.Take(names.Count - 1))} {Pick("and", "und", "et", "y")} {names[^1]}";

    private string DayAndTime(LocalDate day, LocalTime? time) => time is { } at ? $"{Say(day)}, {Say(at)}" : Say(day);
}
