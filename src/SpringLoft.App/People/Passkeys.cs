using System.Collections.Concurrent;
using System.Text;
using System.Text.Json;
using Fido2NetLib;
using Fido2NetLib.Objects;
using SpringLoft.Core.People;
using SpringLoft.Store.Naming;
using SpringLoft.Store.People;

namespace SpringLoft.App.People;

/// <summary>What a browser is asked: options as WebAuthn writes them in JSON.</summary>
public sealed record PasskeyAsking(string Options);

/// <summary>Passkeys as a second step (W3C, Web Authentication, level 3), each bound to the school's address: a page elsewhere that looks like ours gets nothing from it.</summary>
/// <param name="address">Of the school's Spring Loft; its host is what passkeys are for.</param>
public sealed class Passkeys(Premises premises, SchoolAddress address)
{
    private readonly ConcurrentDictionary<SessionId, (Instant At, string Options)> asked = new();

    /// <summary>True if the school's address has a name: a passkey is for a name, never for a number (Web Authentication, section 5.1.2: an effective domain).</summary>
    public bool Offered => Uri.CheckHostName(address.Get().Host) == UriHostNameType.Dns;

    /// <summary>Asks the browser to make one.</summary>
    public PasskeyAsking AskForNew(Caller by, SessionId here)
    {
        var (person, school, there) = premises.Db.Read(c => (PersonStore.Find(c, by.Id)!, SchoolStore.Get(c)!.Name, SecondStepStore.Passkeys(c, by.Id)));
        CheckMost(there.Count);
        return Ask(here, Library(school).RequestNewCredential(new()
        {
            User = new() { Id = Handle(by.Id), Name = person.UserName, DisplayName = person.Name.Display },
            ExcludeCredentials = [.. there.Select(Described)],
            AuthenticatorSelection = new() { UserVerification = UserVerificationRequirement.Preferred, ResidentKey = ResidentKeyRequirement.Preferred },
            AttestationPreference = AttestationConveyancePreference.None,
        }).ToJson());
    }

    /// <summary>Keeps one that the browser has made.</summary>
    /// <param name="answer">The browser's, as JSON.</param>
    /// <returns>Its number.</returns>
    /// <exception cref="RefusedException"><c>passkey-wrong</c>.</exception>
    public async Task<long> Add(Caller by, SessionId here, string? name, string? answer, CancellationToken stop)
    {
        var called = Refusals.Needed(name, "name", "The name", 60);
        var options = CredentialCreateOptions.FromJson(Asked(here));
        var made = await Checked(() => Library("").MakeNewCredentialAsync(new()
        {
            AttestationResponse = Read<AuthenticatorAttestationRawResponse>(answer),
            OriginalOptions = options,
            IsCredentialIdUniqueToUserCallback = (p, _) => Task.FromResult(!premises.Db.Read(c => SecondStepStore.IsKnown(c, Text(p.CredentialId)))),
        }, stop)).ConfigureAwait(false);
        return premises.Db.Write(c =>
        {
            CheckMost(SecondStepStore.Passkeys(c, by.Id).Count);
            var now = premises.Clock.Now;
            var id = SecondStepStore.AddPasskey(c, new PasskeyRow { PersonId = by.Id, Credential = Text(made.Id), PublicKey = Text(made.PublicKey), SignCount = made.SignCount, Name = called, MadeAt = now });
            SessionStore.Stepped(c, here, premises.Clock.Real);
            Premises.Add(c, by, now, new("set up second step", "person", by.Id.Value, null, $"passkey “{called}”"));
            return id;
        });
    }

    /// <summary>Asks the browser to show one.</summary>
    public PasskeyAsking Ask(Caller by, SessionId here)
    {
        var there = premises.Db.Read(c => SecondStepStore.Passkeys(c, by.Id));
        if (there.Count == 0) throw Refusals.NotFound("passkey");
        return Ask(here, Library("").GetAssertionOptions(new() { AllowedCredentials = [.. there.Select(Described)], UserVerification = UserVerificationRequirement.Preferred }).ToJson());
    }

    /// <summary>Shows the second step with one.</summary>
    /// <exception cref="RefusedException"><c>passkey-wrong</c>.</exception>
    public async Task Pass(Caller by, SessionId here, string? answer, CancellationToken stop)
    {
        var response = Read<AuthenticatorAssertionRawResponse>(answer);
        var key = premises.Db.Read(c => SecondStepStore.Passkeys(c, by.Id)).FirstOrDefault(p => p.Credential == Text(response.RawId)) ?? throw Wrong();
        var options = AssertionOptions.FromJson(Asked(here));
        var shown = await Checked(() => Library("").MakeAssertionAsync(new()
        {
            AssertionResponse = response,
            OriginalOptions = options,
            StoredPublicKey = Bytes(key.PublicKey),
            StoredSignatureCounter = (uint)key.SignCount,
            IsUserHandleOwnerOfCredentialIdCallback = (p, _) => Task.FromResult(p.UserHandle.AsSpan().SequenceEqual(Handle(by.Id))),
        }, stop)).ConfigureAwait(false);
        premises.Db.Write(c =>
        {
            SecondStepStore.UsedPasskey(c, key.Id, shown.SignCount, premises.Clock.Now);
            SecondSteps.Passed(c, premises, by, here, premises.Clock.Real, $"passkey “{key.Name}”");
        });
    }

    // What was asked is answered once and soon; a second answer to it is nobody's.
    private string Asked(SessionId here) => asked.TryRemove(here, out var a) && premises.Clock.Real - a.At < SecondStepRules.Challenge ? a.Options : throw Wrong();

    private PasskeyAsking Ask(SessionId here, string options)
    {
        if (!Offered) throw new RefusedException("passkey-nowhere", "This Spring Loft has no name that a passkey could be for.", "Ask those who run it to set SPRING_LOFT_ADDRESS; codes of an app work without.");
        var now = premises.Clock.Real;
        foreach (var old in asked.Where(a => now - a.Value.At >= SecondStepRules.Challenge).ToList()) asked.TryRemove(old.Key, out _);
        asked[here] = (now, options);
        return new(options);
    }

    private Fido2 Library(string school) => new(new Fido2Configuration
    {
        RPID = address.Get().Host,
        RPName = $"Spring Loft {school}".TrimEnd(),
        Origins = new HashSet<string> { address.Get().GetLeftPart(UriPartial.Authority) },
    });

    private static async Task<T> Checked<T>(Func<Task<T>> check)
    {
        try { return await check().ConfigureAwait(false); }
        catch (Exception e) when (e is Fido2VerificationException or ArgumentException or FormatException or InvalidOperationException or System.Security.Cryptography.CryptographicException or System.Formats.Cbor.CborContentException) { throw Wrong(); }
    }

    private static T Read<T>(string? answer)
    {
        try { return JsonSerializer.Deserialize<T>(answer ?? "") ?? throw Wrong(); }
        catch (Exception e) when (e is JsonException or FormatException or NotSupportedException) { throw Wrong(); }
    }

    private static void CheckMost(int there)
    {
        if (there >= SecondStepRules.MostPasskeys) throw new RefusedException("too-many", $"You have {there} passkeys.", "Take one away that you do not use any more.");
    }

    // The person's number says nothing of who they are.
    private static byte[] Handle(PersonId who) => Encoding.UTF8.GetBytes($"person {who.Value}");

    private static PublicKeyCredentialDescriptor Described(PasskeyRow p) => new(Bytes(p.Credential));

    private static string Text(byte[] bytes) => System.Buffers.Text.Base64Url.EncodeToString(bytes);

    private static byte[] Bytes(string text) => System.Buffers.Text.Base64Url.DecodeFromChars(text);

    private static RefusedException Wrong() => new("passkey-wrong", "That passkey was not taken: it is not one of yours, or the answer came too late.", "Try once more, or type a code of your app.");
}
