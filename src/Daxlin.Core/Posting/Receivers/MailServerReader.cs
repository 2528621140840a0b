using System.Collections.Immutable;
using System.Text.RegularExpressions;
using Daxlin.Core.Json;

namespace Daxlin.Core.Posting.Receivers;

/// <summary>Reads what every message says that goes out: by which server, from whom, with which subject.</summary>
internal static partial class MailServerReader
{
    private const int LongestSubject = 200;

    /// <summary>The keys of it.</summary>
    public static string[] Keys { get; } = ["host", "port", "encryption", "user", "password", "from", "subject"];

    /// <param name="to">Whom it goes to, where the document says so.</param>
    /// <param name="usualSubject">Where the document says none.</param>
    public static MailWay Read(JsonPlace place, ImmutableArray<string> to, string usualSubject, FaultList faults)
    {
        var encryption = faults.OneOf(place.Find("encryption"), MailEncryption.StartTls, ("starttls", MailEncryption.StartTls), ("tls", MailEncryption.Tls), ("none", MailEncryption.None));
        var user = faults.Text(place.Find("user"));
        var password = faults.OptionalName(place, "password");
        if (user.Length > 0 && password.Length == 0)
            faults.Add(place, "The key “password” is missing: the name of the secret that holds it.");
        if (user.Length > 0 && encryption == MailEncryption.None)
            faults.Add(place.Find("encryption")!, "A password is never sent in the open: “starttls” or “tls” is wanted here.");
        var from = faults.RequiredText(place, "from");
        if (from.Length > 0 && !IsAddress(from))
            faults.Add(place.Find("from")!, $"“{from}” is no mail address.");
        var subject = faults.Text(place.Find("subject"), usualSubject);
        if (subject.Length > LongestSubject || subject.Any(char.IsControl))
            faults.Add(place.Find("subject")!, $"A subject is one line of {LongestSubject} letters at most.");
        var port = faults.Port(place, encryption switch { MailEncryption.Tls => 465, MailEncryption.None => 25, _ => 587 });
        return new MailWay(faults.RequiredHost(place), port, encryption, user, password, from, to, subject);
    }

    /// <summary>Says that a text is a bare address, without a name before it or anything behind.</summary>
    public static bool IsAddress(string text) => Address().IsMatch(text);

    [GeneratedRegex(@"^[^\s@<>,;""]{1,64}@[^\s@<>,;""]{1,190}$", RegexOptions.CultureInvariant)]
    private static partial Regex Address();
}
