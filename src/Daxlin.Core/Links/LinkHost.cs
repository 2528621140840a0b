using System.Net;

namespace Daxlin.Core.Links;

/// <summary>A host that documents may be fetched from, as whoever runs the service names it: <c>files.port-ellery.example</c>, <c>*.skerrow.example</c>, <c>192.0.2.7:8080</c>.</summary>
/// <param name="Name">A name, one with <c>*.</c> before it for all below it, or an address.</param>
/// <param name="Port">443 where none is named.</param>
public sealed record LinkHost(string Name, int Port)
{
    private const int UsualPort = 443;

    /// <summary>Says that an address itself was named: then it is meant, however private it is.</summary>
    public bool IsAddress => IPAddress.TryParse(Name, out _);

    /// <returns>Null for what is no host.</returns>
    public static LinkHost? Read(string text)
    {
        var isBelow = text.StartsWith("*.", StringComparison.Ordinal);
        if (!Uri.TryCreate("https://" + (isBelow ? text[2..] : text), UriKind.Absolute, out var read) || read.PathAndQuery != "/" || read.UserInfo.Length > 0 || read.Fragment.Length > 0 || read.Host.Length == 0)
            return null;
        return new LinkHost((isBelow ? "*." : "") + read.DnsSafeHost.ToLowerInvariant(), read.Port);
    }

    public override string ToString() => Port == UsualPort ? Name : $"{Name}:{Port}";

    public bool Fits(Uri link) => link.Port == Port
        && (Name.StartsWith("*.", StringComparison.Ordinal) ? link.DnsSafeHost.EndsWith(Name[1..], StringComparison.OrdinalIgnoreCase) : link.DnsSafeHost.Equals(Name, StringComparison.OrdinalIgnoreCase));
}
