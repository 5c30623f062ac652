using RuddySpring.Core.Heat;

namespace RuddySpring.Core.Tests.Heat;

public sealed class HeatNetworkTests
{
    [Theory] // Newton's law of cooling in closed form: T = T_a + (T_0 - T_a) exp(-G t / C), with a heater T_a + q/G
    [InlineData(760, 0.6, 0, 100)]
    [InlineData(760, 0.6, 200, 4000)]
    [InlineData(4200, 1.5, 1000, 0.5)]
    public void One_node_follows_newtons_law(double heat, double loss, double heater, double seconds)
    {
        var network = new HeatNetwork([heat], [], [loss]);
        double[] t = [90],
            integral = [0];
        network.Begin(t, [(loss * 20) + heater]);
        network.Advance(seconds, t, integral);
        var final = 20 + (heater / loss);
        var decay = Math.Exp(-loss * seconds / heat);
        Assert.Equal(final + ((90 - final) * decay), t[0], 1e-10);
        Assert.Equal((final * seconds) + ((90 - final) * (1 - decay) * heat / loss), integral[0], 1e-6);
    }

    [Fact] // two nodes joined and shut off: the difference decays with G (1/C1 + 1/C2), the energy stays (closed form)
    public void Two_nodes_follow_their_eigen_solution()
    {
        const double c1 = 600,
            c2 = 150,
            g = 4;
        var network = new HeatNetwork([c1, c2], [(0, 1, g)], [0, 0]);
        double[] t = [80, 20],
            integral = [0, 0];
        network.Begin(t, [0, 0]);
        network.Advance(37, t, integral);
        var mean = ((c1 * 80) + (c2 * 20)) / (c1 + c2);
        var difference = 60 * Math.Exp(-g * ((1 / c1) + (1 / c2)) * 37);
        Assert.Equal(mean + (c2 / (c1 + c2) * difference), t[0], 1e-10);
        Assert.Equal(mean - (c1 / (c1 + c2) * difference), t[1], 1e-10);
        Assert.Equal((c1 * 80) + (c2 * 20), (c1 * t[0]) + (c2 * t[1]), 1e-8);
    }

    [Fact] // against the general Runge-Kutta solver of a numerical library in fine steps
    public void Three_nodes_agree_with_a_fine_step_integrator()
    {
        double[] heat = [608, 152, 4200],
            outward = [0.48, 0.12, 1.5],
            inflow = [9.6, 2.4, 1030];
        var network = new HeatNetwork(heat, [(0, 2, 0.9), (0, 1, 4)], outward);
        double[] t = [20, 15, 60],
            integral = new double[3];
        network.Begin(t, inflow);
        var start = MathNet.Numerics.LinearAlgebra.Vector<double>.Build.DenseOfArray(t);
        network.Advance(600, t, integral);
        var fine = MathNet.Numerics.OdeSolvers.RungeKutta.FourthOrder(start, 0, 600, 12001, (_, y) =>
            MathNet.Numerics.LinearAlgebra.Vector<double>.Build.Dense([
                (inflow[0] - (outward[0] * y[0]) + (0.9 * (y[2] - y[0])) + (4 * (y[1] - y[0]))) / heat[0],
                (inflow[1] - (outward[1] * y[1]) + (4 * (y[0] - y[1]))) / heat[1],
                (inflow[2] - (outward[2] * y[2]) + (0.9 * (y[0] - y[2]))) / heat[2],
            ])
        )[^1];
        for (var i = 0; i < 3; i++)
            Assert.Equal(fine[i], t[i], 1e-6);
        Assert.Equal(t[0], At(), 1e-9);

        double At()
        {
            network.Begin([20, 15, 60], inflow);
            return network.At(0, 600);
        }
    }

    [Fact]
    public void Short_and_long_steps_meet_without_a_seam()
    {
        // the series for small exponents and the closed form beyond it must agree where they meet
        double[] once = [90],
            many = [90],
            a = [0],
            b = [0];
        var network = new HeatNetwork([760], [], [0.6]);
        network.Begin(once, [12]);
        network.Advance(1000, once, a);
        for (var i = 0; i < 1000; i++)
        {
            network.Begin(many, [12]);
            network.Advance(1, many, b);
        }

        Assert.Equal(once[0], many[0], 1e-9);
        Assert.Equal(a[0], b[0], 1e-6);
    }
}
