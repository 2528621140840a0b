using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Serialization;
using Daxlin.Core.People;

namespace Daxlin.Service.People.Provider;

/// <summary>A provider of identities (OpenID Connect Core 1.0) by which people sign in beside names and passwords, as a file says it.</summary>
/// <param name="Name">What the console and the history call it.</param>
/// <param name="Authority">Its issuer, below which its discovery document stands.</param>
/// <param name="ClientId">By which it knows Daxlin.</param>
/// <param name="Roles">The roles that each of its groups gives.</param>
public sealed record IdentityProvider(string Name, Uri Authority, string ClientId, ImmutableSortedDictionary<string, ImmutableArray<string>> Roles)
{
    /// <summary>The claim that holds the name in the history: one that people cannot choose themselves.</summary>
    public string NameClaim { get; init; } = "name";

    /// <summary>The claim that holds the groups.</summary>
    public string GroupsClaim { get; init; } = "groups";

    /// <summary>What is asked for beside openid and profile.</summary>
    public ImmutableArray<string> Scopes { get; init; } = [];

    /// <summary>The file of the secret that it gave Daxlin, seen from this one; empty for a client without one.</summary>
    public string ClientSecretFile { get; init; } = "";

    /// <summary>Says that who comes by a name that someone has here already is that person.</summary>
    public bool TiesNames { get; init; }

    /// <summary>The secret itself.</summary>
    [JsonIgnore]
    public string ClientSecret { get; private init; } = "";

    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web)
    {
        UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
        RespectNullableAnnotations = true,
        RespectRequiredConstructorParameters = true,
        ReadCommentHandling = JsonCommentHandling.Skip,
    };

    /// <exception cref="SettingsException">The file cannot be read, or says what cannot be.</exception>
    public static IdentityProvider Read(string file)
    {
        try
        {
            var said = JsonSerializer.Deserialize<IdentityProvider>(File.ReadAllText(file), Options) ?? throw new JsonException("it is empty");
            if (said.FaultOf() is { } fault)
                throw new SettingsException($"The identity provider of {file} cannot be used: {fault}");
            return said.ClientSecretFile.Length == 0 ? said
                : said with { ClientSecret = File.ReadAllText(Path.Combine(Path.GetDirectoryName(Path.GetFullPath(file))!, said.ClientSecretFile)).Trim() };
        }
        catch (JsonException error)
        {
            throw new SettingsException($"The identity provider of {file} cannot be used: {(error.Path is { Length: > 1 } path ? $"at {path} " : "")}the file is not as docs/PEOPLE.md shows it.");
        }
        catch (Exception error) when (error is IOException or UnauthorizedAccessException)
        {
            throw new SettingsException($"The file {(error as FileNotFoundException)?.FileName ?? file} cannot be read.");
        }
    }

    private string? FaultOf()
    {
        if (string.IsNullOrWhiteSpace(Name) || string.IsNullOrWhiteSpace(ClientId))
            return "it has no name or no client id.";
        if (!Authority.IsAbsoluteUri || !(Authority.Scheme == Uri.UriSchemeHttps || (Authority.Scheme == Uri.UriSchemeHttp && Authority.IsLoopback)))
            return $"the authority “{Authority.OriginalString}” is no address that begins with https://.";
        return ByGroup.Fault();
    }

    /// <summary>What its groups give.</summary>
    [JsonIgnore]
    public RolesByGroup ByGroup => new(Roles);
}
