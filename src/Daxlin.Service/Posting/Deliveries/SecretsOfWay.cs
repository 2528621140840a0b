using Daxlin.Service.Secrets;
using Daxlin.Service.Posting.Receivers;

namespace Daxlin.Service.Posting.Deliveries;

/// <summary>Looks up what a receiver's document only names.</summary>
internal static class SecretsOfWay
{
    /// <exception cref="DeliveryFaultException">There is none of the name.</exception>
    public static string Needed(this SecretStore secrets, string name) => secrets.Find(name)
        ?? throw new DeliveryFaultException($"The secret “{name}” is not kept here yet; keep it on the receiver's page, or by ./daxlin secret keep {name}.", nothingReached: true);
}
