using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Workspaces;

public class OpeningTests
{
    private static readonly OpeningFacts Fine = new(Students: 18, Led: true, FoldersSeen: 6, BlindSpots: 0, AlsoElsewhere: 0, NoSignIn: 0, HasWelcome: true, Published: 2);

    [Fact]
    public void Of_a_class_that_is_ready_there_is_nothing_to_say() => Opening.Notes(Fine).ShouldBeEmpty();

    public static TheoryData<OpeningFacts, OpeningNote, bool> Each => new()
    {
        { Fine with { Students = 0 }, OpeningNote.NoStudents, true },
        { Fine with { Led = false }, OpeningNote.NobodyLeads, true },
        { Fine with { FoldersSeen = 0 }, OpeningNote.SeesNothing, true },
        { Fine with { BlindSpots = 1 }, OpeningNote.BlindSpots, true },
        { Fine with { AlsoElsewhere = 1 }, OpeningNote.AlsoElsewhere, true },
        { Fine with { NoSignIn = 3 }, OpeningNote.NoSignIn, false },
        { Fine with { HasWelcome = false }, OpeningNote.NoWelcome, false },
        { Fine with { Published = 0 }, OpeningNote.NothingPublished, false },
    };

    [Theory]
    [MemberData(nameof(Each))]
    public void Each_thing_is_said_and_what_can_not_wait_wants_a_look(OpeningFacts facts, OpeningNote note, bool look)
    {
        Opening.Notes(facts).ShouldBe([note]);
        Opening.WantsALook(Opening.Notes(facts)).ShouldBe(look);
    }

    [Fact]
    public void What_weighs_most_comes_first() => Opening.Notes(new(0, false, 0, 2, 1, 4, false, 0)).ShouldBe(Enum.GetValues<OpeningNote>());
}
