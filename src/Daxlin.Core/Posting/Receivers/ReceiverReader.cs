using System.Collections.Immutable;
using System.Text.RegularExpressions;
using Daxlin.Core.Json;

namespace Daxlin.Core.Posting.Receivers;

/// <summary>Reads a receiver's document and says, by key and line, what is wrong with it. Its keys are told in docs/DELIVERY.md.</summary>
public sealed partial class ReceiverReader
{
    /// <summary>The longest document that is read, in characters.</summary>
    public const int Longest = 50_000;

    private const int MostAddressees = 20;

    private readonly FaultList faults = new();

    private ReceiverReader()
    {
    }

    /// <exception cref="JsonFaultException">The document has faults.</exception>
    public static Receiver Read(string json)
    {
        if (json.Length > Longest)
            throw new JsonFaultException([new JsonFault("the document", 0, $"A receiver's document has at most {Longest} characters.")]);
        var reader = new ReceiverReader();
        var receiver = reader.ReadReceiver(JsonPlaceReader.Read(json));
        reader.faults.ThrowIfAny();
        return receiver!;
    }

    private Receiver? ReadReceiver(JsonPlace place)
    {
        (string Key, Func<JsonPlace, ReceivingWay?> Read)[] ways = [("folder", ReadFolder), ("webhook", ReadWebhook), ("mail", ReadMail), ("sftp", ReadSftp), ("postgresql", ReadTables)];
        var keys = ways.Select(way => way.Key).ToArray();
        if (!faults.IsObjectOf(place, ["name", "layout", "atOnce", .. keys]))
            return null;
        var name = faults.RequiredName(place, "name");
        var layout = faults.OptionalName(place, "layout");
        var atOnce = faults.Flag(place.Find("atOnce"), false);
        var said = ways.Where(way => place.Find(way.Key) is not null).ToList();
        if (said.Count != 1)
        {
            faults.Add(place, said.Count == 0
                ? $"The way is missing: one of {string.Join(", ", keys)}."
                : $"A receiver is reached on one way; {string.Join(" and ", said.Select(way => $"“{way.Key}”"))} are said. Make a receiver of each.");
            return null;
        }
        if (said[0].Read(place.Find(said[0].Key)!) is not { } way)
            return null;
        if (way is TableWay && layout.Length == 0)
            faults.Add(place, "The key “layout” is missing: the columns of the tables are those of a layout.");
        return new Receiver(name, layout, atOnce, way);
    }

    private FolderWay? ReadFolder(JsonPlace place)
    {
        if (!faults.IsObjectOf(place, "path"))
            return null;
        var path = faults.RequiredText(place, "path");
        if (path.Length > 0 && !Path.IsPathRooted(path))
            faults.Add(place.Find("path")!, "A folder is named from the root on: /srv/ledger/in.");
        return new FolderWay(path);
    }

    private WebhookWay? ReadWebhook(JsonPlace place)
    {
        if (!faults.IsObjectOf(place, "url", "secret"))
            return null;
        var text = faults.RequiredText(place, "url");
        var secret = faults.RequiredName(place, "secret");
        if (text.Length == 0)
            return null;
        if (!Uri.TryCreate(text, UriKind.Absolute, out var url) || url.Scheme is not ("http" or "https") || url.UserInfo.Length > 0)
        {
            faults.Add(place.Find("url")!, "A web address is wanted here, without a password in it: https://ledger.example/daxlin.");
            return null;
        }
        if (url is { Scheme: "http", IsLoopback: false })
            faults.Add(place.Find("url")!, "Over http anyone on the way can read the invoices; https is wanted here, except for this machine itself.");
        return new WebhookWay(url, secret);
    }

    private MailWay? ReadMail(JsonPlace place)
    {
        if (!faults.IsObjectOf(place, [.. MailServerReader.Keys, "to"]))
            return null;
        var addressees = faults.Texts(place.Find("to"));
        if (place.Find("to") is not { } to)
            faults.Add(place, "The key “to” is missing: whom the message is for.");
        else if (addressees.Length > MostAddressees)
            faults.Add(to, $"At most {MostAddressees} addressees are wanted here.");
        else if (addressees.FirstOrDefault(one => !MailServerReader.IsAddress(one)) is { } faulty)
            faults.Add(to, $"“{faulty}” is no mail address.");
        return MailServerReader.Read(place, addressees, "Posting run {run}", faults);
    }

    private SftpWay? ReadSftp(JsonPlace place)
    {
        if (!faults.IsObjectOf(place, "host", "port", "user", "password", "key", "hostKey", "folder"))
            return null;
        var (user, password) = UserAndPassword(place);
        var key = faults.OptionalName(place, "key");
        if (key.Length == 0 == (password.Length == 0))
            faults.Add(place, "One of “key” and “password” is wanted: the name of the secret that holds it.");
        var hostKey = faults.RequiredText(place, "hostKey");
        if (hostKey.Length > 0 && !HostKeyHash().IsMatch(hostKey))
            faults.Add(place.Find("hostKey")!, "The hash of the machine's key is wanted here, as “ssh-keygen -l” prints it: SHA256: and 43 letters.");
        return new SftpWay(faults.RequiredHost(place), faults.Port(place, 22), user, password, key, hostKey, faults.Text(place.Find("folder"), "."));
    }

    private TableWay? ReadTables(JsonPlace place)
    {
        if (!faults.IsObjectOf(place, "host", "port", "database", "user", "password", "schema"))
            return null;
        var (user, password) = UserAndPassword(place);
        var schema = faults.Text(place.Find("schema"), "daxlin");
        if (!PlainName().IsMatch(schema))
            faults.Add(place.Find("schema")!, "A schema's name is small letters, digits and _, beginning with a letter, 40 at most.");
        return new TableWay(faults.RequiredHost(place), faults.Port(place, 5432), faults.RequiredText(place, "database"), user, password, schema);
    }

    private (string User, string Password) UserAndPassword(JsonPlace place) =>
        (faults.RequiredText(place, "user"), faults.OptionalName(place, "password"));

    [GeneratedRegex("^SHA256:[A-Za-z0-9+/]{43}$", RegexOptions.CultureInvariant)]
    private static partial Regex HostKeyHash();

    [GeneratedRegex("^[a-z][a-z0-9_]{0,39}$", RegexOptions.CultureInvariant)]
    private static partial Regex PlainName();
}
