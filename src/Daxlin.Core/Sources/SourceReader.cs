using System.Collections.Immutable;
using Daxlin.Core.Json;
using Daxlin.Core.Posting.Receivers;

namespace Daxlin.Core.Sources;

/// <summary>Reads a source's document and says, by key and line, what is wrong with it. Its keys are told in docs/INTAKE.md.</summary>
public sealed class SourceReader
{
    /// <summary>The longest document that is read, in characters.</summary>
    public const int Longest = 50_000;

    private const int MostRules = 200;
    private const int MostPatterns = 50;
    private const int HighestPort = 65_535;

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
        if (!faults.IsObjectOf(place, "name", "batch", "folder", "mailbox"))
            return null;
        var name = NameIn(place, "name");
        var said = ways.Where(way => place.Find(way.Key) is not null).ToList();
        if (said.Count != 1)
        {
            faults.Add(place, said.Count == 0 ? "The way is missing: “folder” or “mailbox”." : "A source is looked at in one way; “folder” and “mailbox” are said. Make a source of each.");
            return null;
        }
        faults.RequiredText(place, "batch");
        var batch = ReadBatch(place.Find("batch"), hasFolders: said[0].Key == "folder");
        return said[0].Read(place.Find(said[0].Key)!) is { } way && batch is not null ? new Source(name, batch, way) : null;
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
            if (name is not (BatchNaming.Day or BatchNaming.Month or BatchNaming.Folder))
                faults.Add(place!, $"“{{{name}}}” is not known here; {BatchNaming.Known} are.");
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
        var files = place.Find("files") is { } said ? faults.Texts(said) : ["*.pdf", "*.xml", "*.zip", "*.eml"];
        if (place.Find("files") is { } patterns && (files.Length is 0 or > MostPatterns || files.Any(file => file.Length == 0 || file.Contains('/', StringComparison.Ordinal))))
            faults.Add(patterns, $"What files are called is wanted here, up to {MostPatterns} times and without folders: *.pdf.");
        return new FolderSource(
            path.Length > 0 && Path.IsPathRooted(path) ? Path.TrimEndingDirectorySeparator(Path.GetFullPath(path)) : path, files, faults.Flag(place.Find("subfolders"), false),
            faults.Count(place.Find("settleSeconds"), 10, 3600, least: 1),
            faults.OneOf(place.Find("after"), true, ("move", true), ("leave", false)));
    }

    private MailboxSource? ReadMailbox(JsonPlace place)
    {
        if (!faults.IsObjectOf(place, "host", "port", "encryption", "user", "password", "token", "folder", "rules", "done", "setAside", "answer"))
            return null;
        var encryption = faults.OneOf(place.Find("encryption"), MailEncryption.Tls, ("tls", MailEncryption.Tls), ("starttls", MailEncryption.StartTls), ("none", MailEncryption.None));
        var host = faults.RequiredText(place, "host");
        if (host.Length > 0 && Uri.CheckHostName(host) == UriHostNameType.Unknown)
            faults.Add(place.Find("host")!, $"“{host}” is no machine's name.");
        else if (encryption == MailEncryption.None && host is not ("localhost" or "127.0.0.1" or "::1"))
            faults.Add(place.Find("encryption")!, "A password is never sent in the open, except to this machine itself: “tls” or “starttls” is wanted here.");
        var port = faults.Count(place.Find("port"), encryption == MailEncryption.Tls ? 993 : 143, HighestPort, least: 1);
        var isToken = place.Find("token") is not null;
        if (isToken == place.Find("password") is not null)
            faults.Add(place, "One of “password” and “token” is wanted: the name of the secret that holds it.");
        var secret = isToken ? NameIn(place, "token") : place.Find("password") is null ? "" : NameIn(place, "password");
        var rules = place.Find("rules") is { } list ? ReadRules(list) : [];
        return new MailboxSource(
            host, port, encryption, faults.RequiredText(place, "user"), secret, isToken, faults.Text(place.Find("folder"), "INBOX"), rules, faults.Text(place.Find("done")), faults.Text(place.Find("setAside")),
            place.Find("answer") is { } answer ? ReadAnswer(answer) : null);
    }

    private MailAnswer? ReadAnswer(JsonPlace place)
    {
        if (!faults.IsObjectOf(place, "host", "port", "encryption", "user", "password", "from", "subject", "text", "attach"))
            return null;
        var encryption = faults.OneOf(place.Find("encryption"), MailEncryption.StartTls, ("starttls", MailEncryption.StartTls), ("tls", MailEncryption.Tls), ("none", MailEncryption.None));
        var host = faults.RequiredText(place, "host");
        if (host.Length > 0 && Uri.CheckHostName(host) == UriHostNameType.Unknown)
            faults.Add(place.Find("host")!, $"“{host}” is no machine's name.");
        var user = faults.Text(place.Find("user"));
        var password = place.Find("password") is null ? "" : NameIn(place, "password");
        if (user.Length > 0 && password.Length == 0)
            faults.Add(place, "The key “password” is missing: the name of the secret that holds it.");
        if (user.Length > 0 && encryption == MailEncryption.None)
            faults.Add(place.Find("encryption")!, "A password is never sent in the open: “starttls” or “tls” is wanted here.");
        var from = faults.RequiredText(place, "from");
        if (from.Length > 0 && !ReceiverReader.IsAddress(from))
            faults.Add(place.Find("from")!, $"“{from}” is no mail address.");
        var subject = faults.Text(place.Find("subject"), MailAnswer.UsualSubject);
        if (subject.Length > 200 || subject.Any(char.IsControl))
            faults.Add(place.Find("subject")!, "A subject is one line of 200 letters at most.");
        var text = faults.Text(place.Find("text"), MailAnswer.UsualText);
        foreach (var key in new[] { "subject", "text" }.Where(key => place.Find(key) is not null))
        {
            foreach (var name in AnswerText.Unknown(key == "subject" ? subject : text))
                faults.Add(place.Find(key)!, $"“{{{name}}}” is not known here; {string.Join(", ", AnswerText.Names.Select(one => $"{{{one}}}"))} are.");
        }
        var port = faults.Count(place.Find("port"), encryption switch { MailEncryption.Tls => 465, MailEncryption.None => 25, _ => 587 }, HighestPort, least: 1);
        return new MailAnswer(
            new MailWay(host, port, encryption, user, password, from, [], subject), text,
            faults.OneOf(place.Find("attach"), AnswerTable.None, ("none", AnswerTable.None), ("csv", AnswerTable.Csv), ("xlsx", AnswerTable.Xlsx)));
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
        if (!faults.IsObjectOf(place, "from", "to", "subject", "hasAttachment", "take", "answer", "batch"))
            return null;
        var takes = faults.Flag(place.Find("take"), true);
        if (!takes && place.Find("batch") is { } idle)
            faults.Add(idle, "What is left alone goes into no batch.");
        return new MailRule(
            faults.Text(place.Find("from")), faults.Text(place.Find("to")), faults.Text(place.Find("subject")),
            place.Find("hasAttachment") is { } has ? faults.Flag(has, true) : null, !takes, faults.Flag(place.Find("answer"), true), ReadBatch(place.Find("batch"), hasFolders: false));
    }

    private string NameIn(JsonPlace parent, string key)
    {
        var name = faults.RequiredText(parent, key);
        if (name.Length > 0 && DocumentName.FaultOf(name) is { } fault)
            faults.Add(parent.Find(key)!, fault);
        return name;
    }
}
