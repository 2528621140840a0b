namespace Daxlin.Service.Nodes;

/// <summary>Of a service that has its database for itself: there is nobody to tell.</summary>
internal sealed class NoMessages : NodeMessages
{
    public override void Tell(string topic, int of)
    {
        // Nobody listens.
    }
}
