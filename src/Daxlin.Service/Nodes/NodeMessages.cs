namespace Daxlin.Service.Nodes;

/// <summary>What services that share a database tell each other: that something waits, or has moved on. It is all in the database as well, so a message that is lost costs a moment.</summary>
public abstract class NodeMessages
{
    private readonly Lock guard = new();
    private readonly List<Action<string, int>> listeners = [];

    /// <summary>Tells the others.</summary>
    /// <param name="topic">What kind of thing it is about: <c>batch</c>.</param>
    /// <param name="of">The number of the thing.</param>
    public abstract void Tell(string topic, int of);

    /// <summary>Has something done with each message of another. It must not take long.</summary>
    public void Listen(string topic, Action<int> hear)
    {
        lock (guard)
        {
            listeners.Add((heard, of) =>
            {
                if (heard == topic)
                    hear(of);
            });
        }
    }

    protected void Hear(string topic, int of)
    {
        Action<string, int>[] all;
        lock (guard)
            all = [.. listeners];
        foreach (var listener in all)
            listener(topic, of);
    }
}
