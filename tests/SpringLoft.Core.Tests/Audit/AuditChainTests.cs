using SpringLoft.Core.Audit;

namespace SpringLoft.Core.Tests.Audit;

public class AuditChainTests
{
    private static readonly ChainedLine Line = new(7, "2026-09-01T08:00:00Z", 3, "renamed", "item", 12, null, "192.0.2.7", 5, "ab");

    [Fact]
    public void A_hash_is_what_another_tool_makes_of_the_same_parts()
    {
        // Made with Python's hashlib over the parts as netstrings: see tests/SpringLoft.Core.Tests/Audit/chain.py.
        AuditChain.Words("0a1b", "Wren Aldersund", "“Clay” to “Ton”, naïve").ShouldBe("5c65bc8ca052a73a468e08351452d01c1604c8a7b5894f794608b44bf6f5f5c3");
        AuditChain.Hash(AuditChain.Beginning, Line).ShouldBe("65f522ee920113ccf7b124814b9dcce8dd32c8a1c9a960191efc1bfbd99a9ae3");
    }

    public static TheoryData<ChainedLine> Others =>
    [
        Line with { Id = 8 }, Line with { At = "2026-09-01T08:00:01Z" }, Line with { Person = null }, Line with { Person = 33 }, Line with { Act = "renamedi", Thing = "tem" }, Line with { ThingId = null, Class = 12 },
        Line with { Address = null }, Line with { Address = "" }, Line with { Session = null }, Line with { Words = "ac" },
    ];

    [Theory]
    [MemberData(nameof(Others))]
    public void Any_other_line_has_another_hash(ChainedLine other) => AuditChain.Hash(AuditChain.Beginning, other).ShouldNotBe(AuditChain.Hash(AuditChain.Beginning, Line));

    [Fact]
    public void The_same_line_after_another_one_has_another_hash() => AuditChain.Hash("a", Line).ShouldNotBe(AuditChain.Hash("b", Line));

    [Fact]
    public void Words_that_are_parted_otherwise_have_another_digest() => AuditChain.Words("s", "ab", "c").ShouldNotBe(AuditChain.Words("s", "a", "bc"));
}
