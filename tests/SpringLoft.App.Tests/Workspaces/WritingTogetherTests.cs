using CsCheck;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Together;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Tests.Workspaces;

/// <summary>Pages that several write at once: kept before it is acknowledged, in the text soon after, met and not written over.</summary>
public class WritingTogetherTests : SchoolTest
{
    private WritingTogether together;
    private readonly FolderId folder;
    private readonly ItemId page;

    public WritingTogetherTests()
    {
        school.OpenClass();
        together = new(school.Premises);
        folder = new Arranging(school.Premises).Make(school.Lead, school.Class, new("Logbook", null, FolderRule.ClassEdits, null, 0));
        page = school.Items.AddPage(school.Lead, school.Class, folder, "Tides", "High at nine.\n", CancellationToken.None).GetAwaiter().GetResult();
    }

    /// <summary>A browser with the page open.</summary>
    private sealed class Writer(WritingTogetherTests at, Caller who, string connection)
    {
        internal SharedText Text { get; private set; } = new();
        internal List<Task> Sent { get; } = [];
        internal List<Writer> Others { get; } = [];
        private byte[]? known;

        internal OpenedPage Open()
        {
            var opened = at.together.Open(who, at.school.Class, at.page, connection, known);
            Text.Apply(opened.Update);
            // What was typed while cut off goes along.
            var mine = Text.Since(opened.Vector);
            if (opened.MayWrite && mine.Length > 2) Send(mine);
            return opened;
        }

        internal void Type(string text) => Send(Text.Become(text));

        internal void Send(byte[] update) => Sent.Add(at.together.Write(who, at.school.Class, at.page, update, () => { foreach (var o in Others) o.Text.Apply(update); }));

        internal void TypeAlone(string text) => Text.Become(text);

        // The browser is shut with its text kept in it.
        internal void CutOff()
        {
            at.together.Leave(connection);
            known = Text.Vector();
        }
    }

    private Writer By(Caller who, string? connection = null) => new(this, who, connection ?? who.Name);

    private string Read() => school.Items.ReadPage(school.Lead, school.Class, page).Text;

    private static string Name(Caller who) => who.Name;

    private void Rule(FolderRule rule) =>
        new Arranging(school.Premises).Change(school.Lead, school.Class, folder, new("Logbook", null, rule, null, school.Read(c => FolderStore.OfClass(c, school.Class)).First(f => f.Id == folder).Version));

    private void Later(int minutes = 1)
    {
        together.Go();
        school.Clock.AdvanceMinutes(minutes);
        together.Go();
    }

    [Fact]
    public async Task What_one_writes_the_other_has_at_once_it_is_acknowledged_once_kept_and_soon_in_the_text_with_both_names()
    {
        var (umi, rúna) = (By(school.Umi), By(school.Rúna));
        umi.Open().ShouldSatisfyAllConditions(o => o.MayWrite.ShouldBeTrue(), o => o.Title.ShouldBe("Tides"));
        rúna.Open();
        umi.Others.Add(rúna);
        rúna.Others.Add(umi);
        together.Here(page).Select(p => p.Id).ShouldBe([school.Umi.Id, school.Rúna.Id], ignoreOrder: true);

        umi.Type("High at nine.\nLow at three.\n");
        rúna.Text.Text.ShouldBe("High at nine.\nLow at three.\n");
        rúna.Type("High at nine.\nLow at three.\nWind from the west.\n");
        umi.Text.Text.ShouldBe(rúna.Text.Text);
        umi.Sent[0].IsCompleted.ShouldBeFalse("it is not kept yet");
        together.Go();
        await umi.Sent[0];
        Read().ShouldBe("High at nine.\n");
        Later();
        Read().ShouldBe(umi.Text.Text);
        school.Items.ReadPage(school.Lead, school.Class, page).Writers.ShouldBe([Name(school.Rúna), Name(school.Umi)], ignoreOrder: true);
        school.Items.Versions(school.Lead, school.Class, page).ShouldHaveSingleItem().Version.ShouldBe(1, "what stood before can be brought back");
    }

    [Fact]
    public void A_sitting_is_one_version_and_the_next_another_each_with_who_wrote_it()
    {
        var umi = By(school.Umi);
        umi.Open();
        foreach (var text in new[] { "a", "ab", "abc" })
        {
            umi.Type(text);
            Later();
        }
        school.Items.Versions(school.Lead, school.Class, page).Count.ShouldBe(1);
        school.Clock.AdvanceMinutes(30);
        var rúna = By(school.Rúna);
        rúna.Open();
        rúna.Type("abcd");
        Later();
        school.Items.Versions(school.Lead, school.Class, page).Select(v => string.Join(" ", v.Writers)).ShouldBe([Name(school.Umi), ""]);
        school.Items.ReadPage(school.Lead, school.Class, page).Writers.ShouldBe([Name(school.Rúna)]);
        // Another title takes nothing from who wrote it.
        school.Items.Rename(school.Lead, school.Class, page, "Tides of June", null, school.Items.ReadPage(school.Lead, school.Class, page).Version);
        school.Items.ReadPage(school.Lead, school.Class, page).Writers.ShouldBe([Name(school.Rúna)]);
    }

    [Fact]
    public void Cut_off_and_back_nothing_typed_is_lost_also_where_the_program_was_started_anew()
    {
        var (umi, rúna) = (By(school.Umi), By(school.Rúna));
        umi.Open();
        rúna.Open();
        umi.CutOff();
        umi.TypeAlone("High at nine.\nMine, typed alone.\n");
        rúna.Type("Hers first.\nHigh at nine.\n");
        together.Go();

        // Another process, with what the first one kept and had not written into the text.
        together = new(school.Premises);
        new SharedText(together.Open(school.CoTeacher, school.Class, page, "other", null).Update).Text.ShouldBe("Hers first.\nHigh at nine.\n");
        together.Settle();
        Read().ShouldBe("Hers first.\nHigh at nine.\n");
        umi.Open();
        Later();
        umi.Text.Text.ShouldBe("Hers first.\nHigh at nine.\nMine, typed alone.\n");
        Read().ShouldBe(umi.Text.Text);
    }

    [Fact]
    public async Task A_text_saved_in_the_ordinary_way_meanwhile_is_met_and_both_are_in_it()
    {
        var umi = By(school.Umi);
        umi.Open();
        together.Met += (_, update) => umi.Text.Apply(update);
        umi.Type("High at nine.\nLow at three.\n");
        await school.Items.ChangePage(school.Lead, school.Class, page, "Tides", "Today: high at nine.\n", 1, CancellationToken.None);
        Later();
        Read().ShouldBe("Today: high at nine.\nLow at three.\n");
        umi.Text.Text.ShouldBe(Read());
        // Where nobody writes, an open page shows what was saved.
        await school.Items.ChangePage(school.Lead, school.Class, page, "Tides", "All new.\n", school.Items.ReadPage(school.Lead, school.Class, page).Version, CancellationToken.None);
        Later();
        umi.Text.Text.ShouldBe("All new.\n");
    }

    [Fact]
    public void Who_may_only_look_reads_along_and_who_is_set_to_view_only_in_the_middle_writes_no_more()
    {
        Rule(FolderRule.ClassViews);
        var umi = By(school.Umi);
        umi.Open().MayWrite.ShouldBeFalse();
        Refused(() => umi.Type("x")).ShouldBe("item-not-yours");
        Rule(FolderRule.ClassEdits);
        umi = By(school.Umi);
        umi.Open().MayWrite.ShouldBeTrue();
        umi.Type("Mine.");
        school.Premises.Db.Write(c => RosterStore.SetMayPost(c, school.Class, school.Umi.Id, false));
        Refused(() => umi.Type("Mine, and more.")).ShouldBe("item-not-yours");
        Later();
        Read().ShouldBe("Mine.");
        Refused(() => By(school.Outsider).Open()).ShouldBe("not-found");
        school.Items.ReadPage(school.Lead, school.Class, page).Shared.ShouldBeTrue();
    }

    [Fact]
    public void Who_left_the_class_or_signed_out_is_told_nothing_more()
    {
        var dropped = new List<string>();
        together.Dropped += (_, connection) => dropped.Add(connection);
        var signedIn = school.SignIn("umi");
        var from = new Origin("192.0.2.7", school.Sessions.Who(signedIn.Token)!.Session);
        By(school.Umi with { From = from }, "umi").Open();
        By(school.Rúna, "rúna").Open();
        Later();
        dropped.ShouldBeEmpty();
        school.Sessions.SignOut(signedIn.Token);
        Later();
        dropped.ShouldBe(["umi"]);
        school.Roster.Remove(school.Lead, school.Class, school.Rúna.Id);
        Later();
        dropped.ShouldBe(["umi", "rúna"]);
        together.Here(page).ShouldBeEmpty();
    }

    [Fact]
    public void What_is_no_update_or_too_long_is_refused_and_the_page_stays_as_it_was()
    {
        var umi = By(school.Umi);
        umi.Open();
        umi.Type("Fine.");
        Refused(() => umi.Send([1, 2, 3, 255, 255, 255])).ShouldBe("page-update");
        Refused(() => umi.Send([])).ShouldBe("page-update");
        Refused(() => umi.Send(new byte[WritingTogether.MostUpdate + 1])).ShouldBe("too-long");
        Refused(() => umi.Type(new string('x', Items.MostText + 1))).ShouldBe("too-long");
        Later();
        Read().ShouldBe("Fine.");
        var other = By(school.Rúna);
        other.Open();
        other.Text.Text.ShouldBe("Fine.");
    }

    [Fact]
    public void A_class_that_is_closed_has_in_its_package_what_was_typed_a_moment_before()
    {
        var umi = By(school.Umi);
        umi.Open();
        umi.Type("The very last.");
        school.Close(together: together);
        Read().ShouldBe("The very last.");
        Refused(() => umi.Type("Too late.")).ShouldBe("class-archived");
    }

    /// <summary>Yjs's promise, held by what passes it on: whoever was cut off for however long, in the end all read the same, and every line that somebody typed is in it.</summary>
    [Fact]
    public void Three_writers_with_cuts_and_thousands_of_edits_come_to_one_text_in_which_nothing_is_lost()
    {
        var edits = 0;
        Gen.Select(Gen.Int[0, 2], Gen.Int[0, 9], Gen.Int[0, 1000]).Array[400].Sample(steps =>
        {
            var me = school.Items.AddPage(school.Lead, school.Class, folder, $"Page {Guid.NewGuid():N}"[..20], "", CancellationToken.None).GetAwaiter().GetResult();
            var hub = new WritingTogether(school.Premises);
            Caller[] who = [school.Umi, school.Rúna, school.CoTeacher];
            var texts = who.Select(_ => new SharedText()).ToArray();
            var there = new bool[3];
            var typed = new List<string>();
            void Open(int w)
            {
                var opened = hub.Open(who[w], school.Class, me, $"c{w}", texts[w].Vector());
                texts[w].Apply(opened.Update);
                there[w] = true;
                if (texts[w].Since(opened.Vector) is { Length: > 2 } mine) Send(w, mine);
            }
            void Send(int w, byte[] update) => _ = hub.Write(who[w], school.Class, me, update, () =>
            {
                for (var o = 0; o < 3; o++) if (o != w && there[o]) texts[o].Apply(update);
            });
            foreach (var (w, what, where) in steps)
            {
                if (what == 0)
                {
                    if (there[w]) (there[w], _) = (false, hub.Leave($"c{w}"));
                    else Open(w);
                    continue;
                }
                var (text, line) = (texts[w].Text, $"<{w}:{typed.Count}>");
                var at = text.Length == 0 ? 0 : where % (text.Length + 1);
                // Never within what somebody typed: that is what is looked for at the end.
                while (at > 0 && at < text.Length && text[at] != '<') at--;
                typed.Add(line);
                var update = texts[w].Become(text[..at] + line + text[at..]);
                if (there[w]) Send(w, update);
                edits++;
                if (what == 1) hub.Go();
            }
            for (var w = 0; w < 3; w++) if (!there[w]) Open(w);
            hub.Settle();
            var read = school.Items.ReadPage(school.Lead, school.Class, me).Text;
            return texts.All(t => t.Text == texts[0].Text) && (read == texts[0].Text || (read == "\n" && texts[0].Length == 0)) && typed.All(l => texts[0].Text.Contains(l, StringComparison.Ordinal));
        }, iter: 10, threads: 1);
        edits.ShouldBeGreaterThan(2000);
    }
}
