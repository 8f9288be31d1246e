using System.Text;
using SpringLoft.Formats.Signatures;

namespace SpringLoft.Formats.Tests.Signatures;

/// <summary>Ed25519 as published, and as another tool sees it.</summary>
public class SchoolSignatureTests
{
    // RFC 8032, section 7.1, tests 1 to 3: secret key, public key, message, signature.
    public static TheoryData<string, string, string, string> Vectors => new()
    {
        {
            "9d61b19deffd5a60ba844af492ec2cc44449c5697b326919703bac031cae7f60", "d75a980182b10ab7d54bfed3c964073a0ee172f3daa62325af021a68f707511a", "",
            "e5564300c360ac729086e2cc806e828a84877f1eb8e5d974d873e065224901555fb8821590a33bacc61e39701cf9b46bd25bf5f0595bbe24655141438e7a100b"
        },
        {
            "4ccd089b28ff96da9db6c346ec114e0f5b8a319f35aba624da8cf6ed4fb8a6fb", "3d4017c3e843895a92b70aa74d1b7ebc9c982ccf2ec4968cc0cd55f12af4660c", "72",
            "92a009a9f0d4cab8720e820b5f642540a2b27b5416503f8fb3762223ebdb69da085ac1e43e15996e458f3613d0f11d8c387b2eaeb4302aeeb00d291612bb0c00"
        },
        {
            "c5aa8df43f9f837bedb7442f31dcb7b166d38535076f094b85ce3a2e0b4458f7", "fc51cd8e6218a1a38da47ed00230f0580816ed13ba3303ac5deb911548908025", "af82",
            "6291d657deec24024827e69c3abe01a30ce548a284743a445e3680d7db5ac3ac18ff9b538d16f290ae67f760984dc6594a7c15e9716ed28dc027beceea1ec40a"
        },
    };

    [Theory]
    [MemberData(nameof(Vectors))]
    public void Keys_and_signatures_are_those_of_the_standard(string secret, string key, string message, string signature)
    {
        Convert.ToHexStringLower(SchoolSignature.PublicOf(Convert.FromHexString(secret))).ShouldBe(key);
        Convert.ToHexStringLower(SchoolSignature.Sign(Convert.FromHexString(secret), Convert.FromHexString(message))).ShouldBe(signature);
        SchoolSignature.IsBy(Convert.FromHexString(key), Convert.FromHexString(message), Convert.FromHexString(signature)).ShouldBeTrue();
    }

    [Fact]
    public void One_bit_changed_anywhere_and_it_is_not_signed()
    {
        var secret = SchoolSignature.NewSecret();
        var (key, text) = (SchoolSignature.PublicOf(secret), Encoding.UTF8.GetBytes("class,outcome\r\nClay,verified\r\n"));
        var signature = SchoolSignature.Sign(secret, text);
        SchoolSignature.IsBy(key, text, signature).ShouldBeTrue();
        for (var bit = 0; bit < text.Length * 8; bit++) SchoolSignature.IsBy(key, Flipped(text, bit), signature).ShouldBeFalse();
        for (var bit = 0; bit < 512; bit++) SchoolSignature.IsBy(key, text, Flipped(signature, bit)).ShouldBeFalse();
        SchoolSignature.IsBy(SchoolSignature.PublicOf(SchoolSignature.NewSecret()), text, signature).ShouldBeFalse();
        SchoolSignature.IsBy(key, text, signature[..63]).ShouldBeFalse();
    }

    [Fact]
    public void Openssl_says_the_same_of_what_is_signed_and_reads_the_key()
    {
        var secret = SchoolSignature.NewSecret();
        var text = Encoding.UTF8.GetBytes("class,outcome\r\nClay,verified\r\n");
        using var scratch = new Scratch();
        File.WriteAllText(scratch.Under("key.pem"), SchoolSignature.Pem(SchoolSignature.PublicOf(secret)));
        File.WriteAllBytes(scratch.Under("report.csv"), text);
        File.WriteAllBytes(scratch.Under("report.csv.sig"), SchoolSignature.Sign(secret, text));
        (int Code, string Said) Check() => Shell.Run(scratch.Path, "/usr/bin/openssl", "pkeyutl", "-verify", "-pubin", "-inkey", "key.pem", "-rawin", "-in", "report.csv", "-sigfile", "report.csv.sig");

        Check().ShouldSatisfyAllConditions(c => c.Code.ShouldBe(0, c.Said), c => c.Said.ShouldContain("Verified Successfully"));

        File.WriteAllBytes(scratch.Under("report.csv"), Flipped(text, 40));
        Check().Code.ShouldNotBe(0);
    }

    [Fact]
    public void A_key_is_read_back_and_what_is_none_is_none()
    {
        var key = SchoolSignature.PublicOf(SchoolSignature.NewSecret());
        SchoolSignature.ReadPem(Encoding.UTF8.GetBytes(SchoolSignature.Pem(key))).ShouldBe(key);
        foreach (var none in new[] { "", "no key", "-----BEGIN PUBLIC KEY-----\nAAAA\n-----END PUBLIC KEY-----\n", SchoolSignature.Pem(key).Replace("PUBLIC", "PRIVATE", StringComparison.Ordinal), "-----BEGIN PUBLIC KEY-----\n!\n-----END PUBLIC KEY-----\n" })
            SchoolSignature.ReadPem(Encoding.UTF8.GetBytes(none)).ShouldBeNull(none);
        SchoolSignature.Fingerprint(key).ShouldMatch("^([0-9a-f]{4} ){7}[0-9a-f]{4}$");
    }

    private static byte[] Flipped(byte[] bytes, int bit)
    {
        var copy = bytes.ToArray();
        copy[bit / 8] ^= (byte)(1 << (bit % 8));
        return copy;
    }
}
