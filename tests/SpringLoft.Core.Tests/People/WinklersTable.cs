namespace SpringLoft.Core.Tests.People;

/// <summary>
/// String comparator values published by W. E. Winkler, "String Comparator Metrics and Enhanced Decision Rules in the
/// Fellegi-Sunter Model of Record Linkage" (1990) and its later reprints, table of Jaro and Jaro-Winkler values. The pairs
/// and their values, to three decimals, are written here from memory.
/// </summary>
internal static class WinklersTable
{
    internal static readonly (string A, string B, double Value)[] Pairs =
    [
        ("SHACKLEFORD", "SHACKELFORD", 0.982),
        ("DUNNINGHAM", "CUNNIGHAM", 0.896),
        ("NICHLESON", "NICHULSON", 0.956),
        ("JONES", "JOHNSON", 0.832),
        ("MASSEY", "MASSIE", 0.933),
        ("ABROMS", "ABRAMS", 0.922),
        ("MARTHA", "MARHTA", 0.961),
        ("DWAYNE", "DUANE", 0.840),
        ("DIXON", "DICKSONX", 0.813),
        ("JERALDINE", "GERALDINE", 0.926),
        ("MICHELLE", "MICHAEL", 0.921),
    ];
}
