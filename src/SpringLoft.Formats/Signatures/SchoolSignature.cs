using System.Security.Cryptography;
using System.Text;
using Org.BouncyCastle.Math.EC.Rfc8032;

namespace SpringLoft.Formats.Signatures;

/// <summary>
/// What a school signs with: Ed25519 of RFC 8032, section 5.1. Keys and signatures are as the standard has them, the public key as
/// a PEM of RFC 8410, so that stock tools check them.
/// </summary>
public static class SchoolSignature
{
    /// <summary>The file with the public key, in packages and beside signed reports.</summary>
    public const string KeyFile = "school-key.pem";

    // SubjectPublicKeyInfo of an Ed25519 key is this and the 32 bytes of the key. Source: RFC 8410, sections 3 and 4.
    private static readonly byte[] Before = Convert.FromHexString("302a300506032b6570032100");

    /// <summary>A new secret key, 32 bytes.</summary>
    public static byte[] NewSecret() => RandomNumberGenerator.GetBytes(Ed25519.SecretKeySize);

    /// <summary>The public key of a secret one, 32 bytes.</summary>
    public static byte[] PublicOf(byte[] secret)
    {
        var key = new byte[Ed25519.PublicKeySize];
        Ed25519.GeneratePublicKey(secret, 0, key, 0);
        return key;
    }

    /// <summary>The signature of some bytes, 64 bytes; the same each time.</summary>
    public static byte[] Sign(byte[] secret, byte[] bytes)
    {
        var signature = new byte[Ed25519.SignatureSize];
        Ed25519.Sign(secret, 0, bytes, 0, bytes.Length, signature, 0);
        return signature;
    }

    /// <summary>Is it the signature of these bytes by the holder of this public key? False for what has not the length of either.</summary>
    public static bool IsBy(byte[] publicKey, byte[] bytes, byte[] signature) =>
        publicKey.Length == Ed25519.PublicKeySize && signature.Length == Ed25519.SignatureSize && Ed25519.Verify(signature, 0, publicKey, 0, bytes, 0, bytes.Length);

    /// <summary>The public key as PEM.</summary>
    public static string Pem(byte[] publicKey) => new string(PemEncoding.Write("PUBLIC KEY", [.. Before, .. publicKey])) + "\n";

    /// <summary>The public key in a PEM; null if that is none of an Ed25519 key.</summary>
    public static byte[]? ReadPem(byte[] pem)
    {
        var text = Encoding.UTF8.GetString(pem);
        if (!PemEncoding.TryFind(text, out var at) || text[at.Label] is not "PUBLIC KEY") return null;
        var der = new byte[at.DecodedDataLength];
        return Convert.TryFromBase64String(text[at.Base64Data], der, out var n) && n == Before.Length + Ed25519.PublicKeySize && der.AsSpan(0, Before.Length).SequenceEqual(Before) ? der[Before.Length..] : null;
    }

    /// <summary>By which people tell one key from another: the start of the SHA-256 of the key, in fours.</summary>
    public static string Fingerprint(byte[] publicKey) => string.Join(' ', Convert.ToHexStringLower(SHA256.HashData(publicKey))[..32].Chunk(4).Select(c => new string(c)));
}
