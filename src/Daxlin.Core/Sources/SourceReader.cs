using System.Collections.Immutable;
using Daxlin.Core.Json;
using Daxlin.Core.Posting.Receivers;
using Daxlin.Core.Values;

namespace Daxlin.Core.Sources;

/// <summary>Reads a source's document and says, by key and line, what is wrong with it. Its keys are told in docs/INTAKE.md.</summary>
public sealed class SourceReader
{
    /// <summary>The longest document that is read, in characters.</summary>
    public const int Longest = 50_000;

    private const int MostRules = 200;
    private const int MostPatterns = 50;

    private readonly FaultList faults = new();

    private SourceReader()
    {
    }

    /// <exception cref="JsonFaultException">The document has faults.</exception>
    public static Source Read(string json)
    {
        if (json.Length > Longest)
            throw new JsonFaultException([new JsonFault("the document", 0, $"A source's document has at most {Longest} characters.")]);
        var reader = new SourceReader();
        var source = reader.ReadSource(JsonPlaceReader.Read(json));
        reader.faults.ThrowIfAny();
        return source!;
    }

    private Source? ReadSource(JsonPlace place)
    {
        (string Key, Func<JsonPlace, SourceWay?> Read)[] ways = [("folder", ReadFolder), ("mailbox", ReadMailbox)];
        if (!faults.IsObjectOf(place, "name", "batch", "template", "totals", "hours", "folder", "mailbox"))
            return null;
        var name = faults.RequiredName(place, "name");
        var said = ways.Where(way => place.Find(way.Key) is not null).ToList();
        if (said.Count != 1)
        {
            faults.Add(place, said.Count == 0 ? "The way is missing: “folder” or “mailbox”." : "A source is looked at in one way; “folder” and “mailbox” are said. Make a source of each.");
            return null;
        }
        faults.RequiredText(place, "batch");
        var batch = ReadBatch(place.Find("batch"), hasFolders: said[0].Key == "folder");
        var totals = place.Find("totals") is { } stated ? ReadTotals(stated, hasSubjects: said[0].Key == "mailbox") : SourceTotals.None;
        var hours = place.Find("hours") is { } when ? ReadHours(when) : null;
        return said[0].Read(place.Find(said[0].Key)!) is { } way && batch is not null ? new Source(name, batch, way) { Totals = totals, Hours = hours, Template = faults.OptionalName(place, "template") } : null;
    }

    private LookingHours? ReadHours(JsonPlace place)
    {
        if (!faults.IsObjectOf(place, "from", "to", "days"))
            return null;
        var (from, to, days) = (faults.RequiredTime(place, "from"), faults.RequiredTime(place, "to"), faults.Days(place.Find("days")));
        return from is { } begins && to is { } ends ? new LookingHours(begins, ends, days) : null;
    }

    private SourceTotals ReadTotals(JsonPlace place, bool hasSubjects)
    {
        if (!faults.IsObjectOf(place, "cover", "subject", "currency"))
            return SourceTotals.None;
        if (place.Find("cover") is null && place.Find("subject") is null)
            faults.Add(place, "“cover” or “subject” is wanted here: what cover sheets are called, or how subjects state a total.");
        var covers = place.Find("cover") is { } list ? ReadFileNames(list, "cover*.csv") : [];
        if (place.Find("subject") is not { } subject)
        {
            if (place.Find("currency") is { } idle)
                faults.Add(idle, "This is the currency of subjects that say none; a cover sheet says its own.");
            return new SourceTotals(covers, null);
        }
        if (!hasSubjects)
            faults.Add(subject, "Files have no subject; “cover” is for them.");
        return new SourceTotals(covers, ReadSubject(subject, place.Find("currency")));
    }

    private SubjectTotals ReadSubject(JsonPlace place, JsonPlace? currency)
    {
        var totals = new SubjectTotals(faults.Text(place), faults.Text(currency).ToUpperInvariant());
        var names = totals.Names.ToList();
        if (names.Find(name => !SubjectTotals.Known.Contains(name)) is { } unknown)
            faults.Add(place, $"“{{{unknown}}}” is not known here; there are {NamesInBraces.Listed(SubjectTotals.Known)}.");
        else if (names.Distinct().Count() < names.Count)
            faults.Add(place, "Each name stands in it once.");
        else if (!names.Contains(SubjectTotals.InvoicesName) && !names.Contains(SubjectTotals.SumName))
            faults.Add(place, "{invoices} or {sum} is wanted in it: “{invoices} invoices, {sum} {currency}”.");
        else if (!names.Contains(SubjectTotals.CurrencyName) && totals.Currency.Length == 0)
            faults.Add(place, "In which currency? {currency} is wanted in it, or “currency” beside it.");
        if (currency is not null && totals.Currency.Length > 0 && Currency.Find(totals.Currency) is null)
            faults.Add(currency, $"“{totals.Currency}” is no currency of ISO 4217; one is EUR.");
        return totals;
    }

    private ImmutableArray<string> ReadFileNames(JsonPlace place, string example)
    {
        var files = faults.Texts(place);
        if (files.Length is 0 or > MostPatterns || files.Any(file => file.Length == 0 || file.Contains('/', StringComparison.Ordinal)))
            faults.Add(place, $"What files are called is wanted here, up to {MostPatterns} times and without folders: {example}.");
        return files;
    }

    private BatchNaming? ReadBatch(JsonPlace? place, bool hasFolders)
    {
        if (faults.Text(place) is not { Length: > 0 } pattern)
            return null;
        var naming = new BatchNaming(pattern);
        if (pattern.Length > BatchNaming.Longest || pattern.Any(char.IsControl))
            faults.Add(place!, $"A batch's name is one line of {BatchNaming.Longest} characters at most.");
        foreach (var name in naming.Names)
        {
            if (!BatchNaming.Known.Contains(name))
                faults.Add(place!, $"“{{{name}}}” is not known here; there are {NamesInBraces.Listed(BatchNaming.Known)}.");
            else if (name == BatchNaming.Folder && !hasFolders)
                faults.Add(place!, "“{folder}” is of files in folders; a message stands in none.");
        }
        return naming;
    }

    private FolderSource? ReadFolder(JsonPlace place)
    {
        if (!faults.IsObjectOf(place, "path", "files", "subfolders", "settleSeconds", "after"))
            return null;
        var path = faults.RequiredText(place, "path");
        if (path.Length > 0 && (!Path.IsPathRooted(path) || Path.GetFullPath(path) == Path.GetPathRoot(path)))
            faults.Add(place.Find("path")!, "A folder is named from the root on, and is not the root itself: /srv/invoices/in.");
        ImmutableArray<string> files = place.Find("files") is { } said ? ReadFileNames(said, "*.pdf") : ["*.pdf", "*.xml", "*.zip", "*.eml"];
        return new FolderSource(
            path.Length > 0 && Path.IsPathRooted(path) ? Path.TrimEndingDirectorySeparator(Path.GetFullPath(path)) : path, files, faults.Flag(place.Find("subfolders"), false),
            faults.Count(place.Find("settleSeconds"), 10, 3600, least: 1),
            faults.OneOf(place.Find("after"), true, ("move", true), ("leave", false)));
    }

    private MailboxSource? ReadMailbox(JsonPlace place)
    {
        if (!faults.IsObjectOf(place, "host", "port", "encryption", "user", "password", "token", "renewal", "folder", "rules", "done", "setAside", "answer"))
            return null;
        var encryption = faults.OneOf(place.Find("encryption"), MailEncryption.Tls, ("tls", MailEncryption.Tls), ("starttls", MailEncryption.StartTls), ("none", MailEncryption.None));
        var host = faults.RequiredHost(place);
        if (encryption == MailEncryption.None && host is not ("localhost" or "127.0.0.1" or "::1"))
            faults.Add(place.Find("encryption")!, "A password is never sent in the open, except to this machine itself: “tls” or “starttls” is wanted here.");
        var port = faults.Port(place, encryption == MailEncryption.Tls ? 993 : 143);
        var isToken = place.Find("token") is not null;
        var renewal = place.Find("renewal") is { } renewed ? ReadRenewal(renewed) : null;
        if (new[] { "password", "token", "renewal" }.Count(key => place.Find(key) is not null) != 1)
            faults.Add(place, "One of “password”, “token” and “renewal” is wanted: the name of the secret that holds it, or where tokens are renewed.");
        var secret = isToken ? faults.RequiredName(place, "token") : faults.OptionalName(place, "password");
        var rules = place.Find("rules") is { } list ? ReadRules(list) : [];
        return new MailboxSource(
            host, port, encryption, faults.RequiredText(place, "user"), secret, isToken || renewal is not null, faults.Text(place.Find("folder"), "INBOX"), rules, faults.Text(place.Find("done")), faults.Text(place.Find("setAside")),
            place.Find("answer") is { } answer ? ReadAnswer(answer) : null)
        { Renewal = renewal };
    }

    private TokenRenewal? ReadRenewal(JsonPlace place)
    {
        if (!faults.IsObjectOf(place, "url", "client", "clientSecret", "refresh", "scope"))
            return null;
        var (text, client, refresh) = (faults.RequiredText(place, "url"), faults.RequiredText(place, "client"), faults.RequiredName(place, "refresh"));
        var secret = faults.OptionalName(place, "clientSecret");
        if (Uri.TryCreate(text, UriKind.Absolute, out var url) && (url.Scheme == "https" || url is { Scheme: "http", IsLoopback: true }) && url.UserInfo.Length == 0)
            return new TokenRenewal(url, client, secret, refresh, faults.Text(place.Find("scope")));
        if (text.Length > 0)
            faults.Add(place.Find("url")!, "The web address of the token endpoint is wanted here, over https and without a password in it: https://login.mail.example/token.");
        return null;
    }

    private MailAnswer? ReadAnswer(JsonPlace place)
    {
        if (!faults.IsObjectOf(place, [.. MailServerReader.Keys, "text", "attach"]))
            return null;
        var line = MailServerReader.Read(place, [], MailAnswer.UsualSubject, faults);
        var text = faults.Text(place.Find("text"), MailAnswer.UsualText);
        foreach (var (key, said) in new[] { ("subject", line.Subject), ("text", text) })
        {
            foreach (var name in AnswerText.Unknown(said))
                faults.Add(place.Find(key)!, $"“{{{name}}}” is not known here; there are {NamesInBraces.Listed(AnswerText.Names)}.");
        }
        return new MailAnswer(line, text, faults.OneOf(place.Find("attach"), AnswerTable.None, ("none", AnswerTable.None), ("csv", AnswerTable.Csv), ("xlsx", AnswerTable.Xlsx)));
    }

    private ImmutableArray<MailRule> ReadRules(JsonPlace place)
    {
        if (!place.IsArray || place.Items.Length > MostRules)
        {
            faults.Add(place, $"A list of up to {MostRules} rules is wanted here.");
            return [];
        }
        return [.. place.Items.Select(ReadRule).OfType<MailRule>()];
    }

    private MailRule? ReadRule(JsonPlace place)
    {
        if (!faults.IsObjectOf(place, "from", "to", "subject", "hasAttachment", "take", "answer", "batch", "template"))
            return null;
        var takes = faults.Flag(place.Find("take"), true);
        if (!takes && place.Find("batch") is { } idle)
            faults.Add(idle, "What is left alone goes into no batch.");
        if (!takes && place.Find("template") is { } vain)
            faults.Add(vain, "What is left alone is for no template.");
        return new MailRule(
            faults.Text(place.Find("from")), faults.Text(place.Find("to")), faults.Text(place.Find("subject")),
            place.Find("hasAttachment") is { } has ? faults.Flag(has, true) : null, !takes, faults.Flag(place.Find("answer"), true), ReadBatch(place.Find("batch"), hasFolders: false), faults.OptionalName(place, "template"));
    }
}
