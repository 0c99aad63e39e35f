import { Button, ConfigProvider, Form, Input, Layout, Menu, Select, Table } from 'antd';
import { createRoot } from 'react-dom/client';

// The yardstick for the first screen: a page of the component library with nothing of ours on it.
createRoot(document.getElementById('root')!).render(
  <ConfigProvider>
    <Layout>
      <Layout.Header>
        <Menu mode="horizontal" items={[{ key: 'a', label: 'A' }]} />
      </Layout.Header>
      <Layout.Content>
        <Form>
          <Form.Item label="Name">
            <Input />
          </Form.Item>
          <Form.Item label="Kind">
            <Select options={[{ value: 'a', label: 'A' }]} />
          </Form.Item>
          <Button type="primary">Go</Button>
        </Form>
        <Table columns={[{ title: 'A', dataIndex: 'a' }]} dataSource={[{ key: 1, a: 'x' }]} />
      </Layout.Content>
    </Layout>
  </ConfigProvider>,
);
