namespace SpringLoft.Demo;

/// <summary>Invented people: names from many languages, put together at random. Any likeness is chance.</summary>
internal static class DemoNames
{
    internal static readonly string[] Given =
    [
        "Umi", "Rúna", "Oisín", "Ngozi", "Tomasz", "Aoife", "Bjarki", "Chiara", "Dilnoza", "Eitan", "Farah", "Gwen", "Hinewai", "Ishaan", "Jólín", "Kwame",
        "Lærke", "Mateo", "Noor", "Öykü", "Pilar", "Quyên", "Rangi", "Søren", "Thandiwe", "Ülo", "Violeta", "Wanjiru", "Xochitl", "Yusuf", "Zoë", "Ánna",
        "Bao", "Célestine", "Dmitri", "Esma", "Finnur", "Gül", "Hana", "Íris", "Jamila", "Kéllian", "Leilani", "Małgorzata", "Nikau", "Odhrán", "Priya", "Renée",
        "Sólveig", "Tāne", "Uchenna", "Vidar", "Wiremu", "Ximena", "Ylva", "Zdeněk", "Amélie", "Bilal", "Chukwuemeka", "Dafydd", "Elif", "Fionn", "Gabija", "Hōne",
    ];

    internal static readonly string[] Family =
    [
        "Hallgrímsson", "Farquhar", "Castellan", "Ravndal", "Achterberg", "Brannigan", "Çelik", "Dahlquist", "Eriksen", "Fuimaono", "Guðmundsdóttir", "Haverkamp",
        "Ibekwe", "Jónasson", "Kowalczyk", "Laurentsen", "Mac Aodha", "Nakamura", "Ó Flaithearta", "Petrosyan", "Quiroga", "Rautio", "Sigurðardóttir", "Tuilagi",
        "Uzun", "van der Wal", "Wójcik", "Xuereb", "Yılmaz", "Žemaitis", "Åström", "Björnsdóttir", "Coimbra", "de Sá", "Ellingsgaard", "Fernández-Ruiz",
        "Gallagher", "Hrafnkelsson", "Ivarsen", "Jørgensen", "Kereama", "Łukasik", "Mbeki-Strand", "Nguyễn", "Okonkwo", "Pálsson", "Rasmussen", "Stavros",
        "Tamihana", "Ulvaeson", "Vilhjálmsson", "Winterbourne", "Yeboah", "Zulu", "O'Malley", "Thorvald", "Skagerlund", "Marchetti", "Bondarenko", "Adeyemi",
    ];

    /// <summary>Those who lead classes, and what they teach.</summary>
    internal static readonly (string Given, string Family, string Course)[] Teachers =
    [
        ("Rúna", "Hallgrímsdóttir", "Boatbuilding"), ("Oisín", "Farquhar", "Clay and Glass"), ("Ngozi", "Castellan", "Tides and Weather"),
        ("Tomasz", "Ravndal", "Signals"), ("Mereana", "Achterberg", "Market Garden"), ("Yusuf", "Dahlquist", "Island Stories"),
        ("Ylva", "Petrosyan", "Wayfinding"), ("Cáit", "Brannigan", "Sound and Rhythm"),
    ];

    /// <summary>Staff who lead no class: co-teachers.</summary>
    internal static readonly (string Given, string Family)[] OtherStaff =
    [
        ("Ingrid", "Quiroga"), ("Samuel", "Okonkwo"), ("Léa", "Winterbourne"), ("Pēteris", "Zariņš"), ("Amara", "Ellingsgaard"), ("Bo", "Laurentsen"), ("Hatice", "Yeboah"),
    ];
}
